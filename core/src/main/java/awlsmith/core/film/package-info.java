/** What film picked up on its way to the scanner, taken out again. */
package awlsmith.core.film;
