/** What is due, and what a batch would take of it. */
@NullMarked
package leveltally.server.selection;

import org.jspecify.annotations.NullMarked;
