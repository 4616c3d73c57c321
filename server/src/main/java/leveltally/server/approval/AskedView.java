package leveltally.server.approval;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.marks.MarkView;
import org.jspecify.annotations.Nullable;

/** A batch as an approver is asked for it; {@code seen} is handed back with an approval; {@code compared} is true when there is an earlier round to compare. */
public record AskedView(
        long id,
        String name,
        String note,
        String account,
        String currency,
        String method,
        LocalDate checkDate,
        LocalDate ledgerDate,
        String state,
        String stateWords,
        String amount,
        String sentBy,
        @Nullable Instant sentAt,
        List<String> hands,
        int round,
        @Nullable RouteView route,
        String seen,
        boolean mayApprove,
        boolean mayDecline,
        @Nullable String onBehalfOf,
        String whyNot,
        List<AskedClaim> claims,
        List<GoneView> gone,
        List<LooksView.StruckView> struck,
        List<LooksView.NoteView> notes,
        int marked,
        int changed,
        boolean compared) {
    /** {@code since} is NEW, CHANGED, SAME or FIRST; {@code was} the amount before, {@code inTheWay} why it cannot go on. */
    record AskedClaim(
            long id,
            long vendor,
            String payee,
            String address,
            String bank,
            String amount,
            int lines,
            String since,
            @Nullable String was,
            List<MarkView> marks,
            List<String> inTheWay) {}

    record GoneView(String payee, String amount) {}
}
