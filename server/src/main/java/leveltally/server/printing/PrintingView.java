package leveltally.server.printing;

import java.util.List;
import leveltally.core.printing.Answer;
import org.jspecify.annotations.Nullable;

/** Where the printing of a batch stands: the turn, who has no number yet, what came out and what was said of it. */
public record PrintingView(
        long account,
        String accountName,
        long nextNumber,
        boolean sameNumberReprint,
        String loading,
        @Nullable TurnView turn,
        int toNumber,
        String toNumberAmount,
        List<UnnumberedView> unnumbered,
        List<AdviceView> advices,
        int onOwnNumber,
        int unanswered,
        boolean printable,
        List<RunView> runs) {

    record TurnView(long serial, String holder, boolean mine, boolean forThisBatch, long idleMinutes, boolean idle) {}

    /** A payment without a number; {@code why} says what keeps it behind, empty when nothing does. */
    record UnnumberedView(long claim, String payee, String amount, String why) {}

    /** Remittance advice, on plain paper; {@code pages} of all its payments together. */
    record AdviceView(long run, boolean sent, int payments, int pages) {}

    /** {@code outcome} is what lies in the stand-in's tray: PRINTED, SMEARED, TORN, BLANK; absent before. */
    record SheetView(
            long document,
            long claim,
            long number,
            String payee,
            String amount,
            int pages,
            @Nullable String outcome,
            @Nullable Answer answer,
            String why,
            boolean posted) {}

    record RunView(long run, boolean sent, String madeBy, List<SheetView> sheets) {}
}
