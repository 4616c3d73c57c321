package leveltally.server.approval;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import leveltally.server.marks.MarkView;

/** What to look at in a batch, by claim: its marks, and what an approver noted when it was sent back. */
@Schema(requiredProperties = {"marks", "notes", "struck"})
public record LooksView(List<ClaimMarks> marks, List<NoteView> notes, List<StruckView> struck) {
    @Schema(requiredProperties = {"claim", "marks"})
    record ClaimMarks(long claim, List<MarkView> marks) {}

    @Schema(requiredProperties = {"payee", "amount", "reason", "who", "at", "round"})
    record StruckView(String payee, String amount, String reason, String who, Instant at, int round) {}

    @Schema(requiredProperties = {"claim", "payee", "note", "who", "round"})
    record NoteView(long claim, String payee, String note, String who, int round) {}
}
