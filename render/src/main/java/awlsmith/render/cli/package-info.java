/** The headless command: the same engine with no server and no database. */
package awlsmith.render.cli;
