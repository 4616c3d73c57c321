/** Mail that tells people what waits for them. */
@NullMarked
package leveltally.server.mail;

import org.jspecify.annotations.NullMarked;
