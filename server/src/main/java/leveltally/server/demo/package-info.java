/** The demo company, made through the same services a user's deeds go through. */
@NullMarked
package leveltally.server.demo;

import org.jspecify.annotations.NullMarked;
