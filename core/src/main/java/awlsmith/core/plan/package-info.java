/** What a render will make and take, told before it starts. */
package awlsmith.core.plan;
