package leveltally.server.printing;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Answer;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.paper.PaperLayout;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Prints once more on the numbers that payments have already. */
@Service
public class OwnNumbers {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Verification verification;
    private final Checks checks;
    private final Runs runs;
    private final WaitingClaims waiting;
    private final AuditTrail audit;

    OwnNumbers(
            Batches batches,
            ClaimRows claimRows,
            Verification verification,
            Checks checks,
            Runs runs,
            WaitingClaims waiting,
            AuditTrail audit) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.verification = verification;
        this.checks = checks;
        this.runs = runs;
        this.waiting = waiting;
        this.audit = audit;
    }

    /**
     * A new run for sheets that stayed blank, and for damaged ones that may be printed again, each on its own number.
     *
     * @return the run to hand to the printer
     */
    @Transactional
    public long print(Actor by, BatchId id) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        List<Check> taken = checks.unposted(id, EnumSet.of(NumberState.TAKEN));
        Map<Long, DocumentEntity> last = new HashMap<>();
        runs.latest(id).forEach(d -> last.put(d.checkNumberId, d));
        List<Check> blank = taken.stream()
                .filter(c -> last.containsKey(c.id().value()) && keepsNumber(last.get(c.id().value())))
                .toList();
        if (blank.isEmpty()) {
            throw Refusal.conflict("nothing-blank", "No sheet of this batch waits to be printed on its own number.");
        }
        Set<ClaimId> wanted =
                blank.stream().map(check -> check.payment().claim()).collect(Collectors.toSet());
        List<Claim> all =
                claimRows.of(id).stream().filter(c -> wanted.contains(c.id())).toList();
        PaperLayout on = waiting.on(batch, by.today());
        WaitingClaims.Looked looked = waiting.look(batch, all, on);
        looked.refuseIfNone("None can be printed as it stands: ");
        List<Claim> claims =
                all.stream().filter(c -> !looked.behind().containsKey(c.id())).toList();
        verification.verify(batch, claims);
        long turn = runs.of(last.get(blank.get(0).id().value())).turnSerial;
        List<Runs.Sheet> sheets = new ArrayList<>();
        for (Check check : blank) {
            ClaimId claim = check.payment().claim();
            if (!looked.behind().containsKey(claim)) {
                DocumentEntity before = last.get(check.id().value());
                sheets.add(new Runs.Sheet(
                        check.id(),
                        check.payment().id(),
                        before.serial + 1,
                        looked.texts().get(claim).numbered(check.number()),
                        before.pages));
            }
        }
        long run = runs.write(by, batch, turn, DocumentKind.CHECK, on, sheets);
        List<Long> damaged = blank.stream()
                .filter(check -> last.get(check.id().value()).answer == Answer.AGAIN)
                .map(Check::number)
                .toList();
        audit.record(
                by,
                "print on own numbers",
                "batch " + id.value(),
                Map.of("count", sheets.size(), "damaged before", damaged.toString()));
        return run;
    }

    private static boolean keepsNumber(DocumentEntity document) {
        return document.answer != null && document.answer.keepsNumber();
    }
}
