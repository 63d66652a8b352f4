/** Trained models, whatever they are for: their cards, where they come from, what runs them, and the tiles they work on. */
package awlsmith.core.model;
