package leveltally.server.approval;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.marks.MarkKind;
import org.jspecify.annotations.Nullable;

/** A batch, or what one would be like. */
public record TryRoutes(
        @NotNull @Valid PolicyContent content,
        @Nullable Long batch,
        @Nullable Long account,
        @Nullable @Size(max = 20) String total,
        @Nullable @Size(max = 20) String largest,
        @Nullable @Size(max = 20) List<@NotNull MarkKind> marks) {}
