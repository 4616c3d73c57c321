package leveltally.server.printing;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A run whose numbers are taken, the advices that go with it, and who stays behind. */
public record Numbered(long run, @Nullable Long advices, List<Behind> behind) {}
