package leveltally.server.clearing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.clearing.Reconciliation;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Bank and ledger beside each other. */
@RestController
@RequestMapping("/api/reconciliations")
@Needs(Deed.READ)
class ReconciliationController {
    private static final int SHOWN = 500;

    private final Reconciling reconciling;

    ReconciliationController(Reconciling reconciling) {
        this.reconciling = reconciling;
    }

    record ReconciledRow(LocalDate day, String what, String more, MoneyView amount) {}

    /** @param more how many rows are not shown; the printed list has all */
    record ReconciledSection(
            Reconciliation.Kind kind,
            String words,
            String about,
            int count,
            MoneyView sum,
            List<ReconciledRow> rows,
            int more) {}

    /**
     * @param from from which day on statements tell of the account; null where none was read
     * @param on the day that is shown; null where none was read
     */
    record ReconciliationView(
            @Nullable LocalDate from,
            @Nullable LocalDate until,
            @Nullable LocalDate on,
            @Nullable MoneyView bank,
            List<ReconciledSection> sections,
            @Nullable MoneyView ledger,
            @Nullable MoneyView unexplained,
            boolean explained,
            List<Reconciling.SignedReconciliation> signed) {}

    record ReconciliationSigned(
            long account,
            @NotNull LocalDate on,
            @NotNull @Size(max = 400) String note) {}

    /** @param on absent: the last day the statements reach */
    @GetMapping
    ReconciliationView on(
            Actor by, @RequestParam long account, @RequestParam(required = false) @Nullable LocalDate on) {
        BankAccountId id = new BankAccountId(account);
        List<Reconciling.SignedReconciliation> signed = reconciling.signed(by, id);
        return reconciling
                .reach(by, id)
                .map(reach -> {
                    Reconciliation found = reconciling.on(by, id, on == null ? reach.until() : on);
                    return new ReconciliationView(
                            reach.from(),
                            reach.until(),
                            found.on(),
                            MoneyView.of(found.bank()),
                            found.sections().stream()
                                    .map(ReconciliationController::view)
                                    .toList(),
                            MoneyView.of(found.ledger()),
                            MoneyView.of(found.unexplained()),
                            found.unexplained().isZero(),
                            signed);
                })
                .orElseGet(() -> new ReconciliationView(null, null, null, null, List.of(), null, null, false, signed));
    }

    private static ReconciledSection view(Reconciliation.Section section) {
        return new ReconciledSection(
                section.kind(),
                section.kind().words(),
                section.kind().about(),
                section.count(),
                MoneyView.of(section.sum()),
                section.rows().stream()
                        .limit(SHOWN)
                        .map(row -> new ReconciledRow(row.day(), row.what(), row.more(), MoneyView.of(row.amount())))
                        .toList(),
                Math.max(0, section.count() - SHOWN));
    }

    @PostMapping("/sign")
    @Needs(Deed.SIGN_RECONCILIATION)
    void sign(Actor by, @Valid @RequestBody ReconciliationSigned wanted) {
        reconciling.sign(by, new BankAccountId(wanted.account()), wanted.on(), wanted.note());
    }
}
