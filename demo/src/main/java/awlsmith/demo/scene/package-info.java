/** A small ray caster over painted surfaces, water and sky, and the places it shows. */
package awlsmith.demo.scene;
