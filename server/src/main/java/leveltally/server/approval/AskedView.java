package leveltally.server.approval;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.marks.MarkView;
import org.jspecify.annotations.Nullable;

/** A batch as an approver is asked for it; {@code seen} is handed back with an approval; {@code compared} is true when there is an earlier round to compare; {@code elsewhere} where the money has left already. */
public record AskedView(
        long id,
        String name,
        String note,
        String account,
        String currency,
        String by,
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
        boolean compared,
        boolean elsewhere) {
    /** {@code since} is NEW, CHANGED, SAME or FIRST; {@code was} the amount before, {@code inTheWay} why it cannot go on, {@code number} the one it was paid under elsewhere, empty for all others. */
    record AskedClaim(
            long id,
            long vendor,
            String payee,
            String number,
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
