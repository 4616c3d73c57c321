package leveltally.server.paper;

import leveltally.core.paper.CheckLayout;
import org.jspecify.annotations.Nullable;

/**
 * A layout that documents are printed on.
 *
 * @param id null for the one that was there before anybody made one
 */
public record PaperLayout(@Nullable Long id, CheckLayout layout) {}
