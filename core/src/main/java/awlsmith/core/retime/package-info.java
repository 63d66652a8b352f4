/** When pictures are shown: even rates, faster and slower. */
package awlsmith.core.retime;
