package leveltally.server.printing;

import java.util.List;
import leveltally.core.paper.Signature;
import leveltally.server.printers.PrintJob;
import org.jspecify.annotations.Nullable;

/**
 * A run as it was drawn for a printer.
 *
 * @param signature that could be printed when it was drawn
 * @param signed the documents that it stands on
 */
public record DrawnRun(PrintJob job, @Nullable Signature signature, List<Long> signed) {}
