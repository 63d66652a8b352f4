/** Pictures held steady: the way the camera went, and the way it should have gone. */
package awlsmith.core.steady;
