/** Asking for and giving approval. */
@NullMarked
package leveltally.server.approval;

import org.jspecify.annotations.NullMarked;
