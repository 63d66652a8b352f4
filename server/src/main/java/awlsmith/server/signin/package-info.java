/** Who may use the application: the one-time link, the password, the session. */
@NullMarked
package awlsmith.server.signin;

import org.jspecify.annotations.NullMarked;
