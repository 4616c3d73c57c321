/** Sets a company up: what is missing before it can pay, and its bank accounts with all that hangs on them. */
@NullMarked
package leveltally.server.setup;

import org.jspecify.annotations.NullMarked;
