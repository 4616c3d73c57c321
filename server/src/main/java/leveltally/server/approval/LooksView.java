package leveltally.server.approval;

import java.time.Instant;
import java.util.List;
import leveltally.server.marks.MarkView;

/** What to look at in a batch, by claim: its marks, and what an approver noted when it was sent back. */
public record LooksView(List<ClaimMarks> marks, List<NoteView> notes, List<StruckView> struck) {
    record ClaimMarks(long claim, List<MarkView> marks) {}

    record StruckView(String payee, String amount, String reason, String who, Instant at, int round) {}

    record NoteView(long claim, String payee, String note, String who, int round) {}
}
