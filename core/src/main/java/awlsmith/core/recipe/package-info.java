/** What a user asks for: ordered steps with typed settings, checked before anything runs. */
package awlsmith.core.recipe;
