/** The condition of a whole clip: what was measured frame by frame, what is wrong with it, and what to do about it. */
package awlsmith.core.condition;
