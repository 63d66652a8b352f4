/** The web application: one package a feature, each with its controller, service and repository. */
@NullMarked
package awlsmith.server;

import org.jspecify.annotations.NullMarked;
