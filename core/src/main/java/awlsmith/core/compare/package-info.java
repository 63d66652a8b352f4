/** What a treatment did: source held against treated, in figures, curves and places. */
package awlsmith.core.compare;
