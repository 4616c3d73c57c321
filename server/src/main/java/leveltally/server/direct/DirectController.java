package leveltally.server.direct;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Payments without an invoice: looked at, made, typed anew; and payees who are paid once. */
@RestController
@RequestMapping("/api/direct")
@Needs(Deed.READ)
class DirectController {
    /** As many as are made in one deed. */
    private static final int MOST_ROWS = 300;

    private final DirectPayments direct;
    private final DirectViews views;
    private final OneTimePayees payees;

    DirectController(DirectPayments direct, DirectViews views, OneTimePayees payees) {
        this.direct = direct;
        this.views = views;
        this.payees = payees;
    }

    /** Rows of one way on one day; {@code batch} is the one they stand in already, 0 for none. */
    record DirectAsked(
            long account,
            long way,
            long batch,
            @NotNull LocalDate checkDate,
            @NotNull @Size(max = MOST_ROWS) List<@NotNull @Valid DirectRow> rows) {}

    /**
     * {@code name} empty: as its day is called; {@code version} the one that was seen, not asked of a new batch; {@code typedAs}
     * what the page calls this typing, so that it is made once.
     */
    record DirectWanted(
            long account,
            long way,
            @NotNull LocalDate checkDate,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 300) String note,
            boolean send,
            @NotNull @Size(max = 40) String typedAs,
            long version,
            @NotNull @Size(max = MOST_ROWS) List<@NotNull @Valid DirectRow> rows) {}

    /** {@code account} empty where a check is enough; {@code bic} null for none. */
    record OneTimePayee(
            @NotNull @Size(max = 120) String name,
            @NotNull @Size(max = 10) List<@NotNull @Size(max = 200) String> address,
            @NotNull @Size(max = 20) String postalCode,
            long way,
            long bankAccount,
            @NotNull @Size(max = 40) String routing,
            @NotNull @Size(max = 60) String account,
            boolean savings,
            @Nullable @Size(max = 20) String bic) {}

    /** The ways by which something can be paid here. */
    @GetMapping("/ways")
    List<DirectViews.DirectWay> ways(Actor by) {
        by.mayDo(Deed.READ);
        return views.ways();
    }

    @PostMapping("/look")
    @Needs(Deed.READ)
    DirectViews.DirectLooked look(Actor by, @Valid @RequestBody DirectAsked asked) {
        return views.looked(direct.look(
                by,
                new DirectPayments.Wanted(
                        new BankAccountId(asked.account()),
                        new WayId(asked.way()),
                        asked.checkDate(),
                        "",
                        "",
                        asked.rows()),
                asked.batch()));
    }

    @PostMapping
    @Needs(Deed.EDIT_BATCH)
    long make(Actor by, @Valid @RequestBody DirectWanted wanted) {
        return direct.make(by, read(wanted), new DirectPayments.How(wanted.send(), wanted.typedAs()))
                .value();
    }

    private static DirectPayments.Wanted read(DirectWanted wanted) {
        return new DirectPayments.Wanted(
                new BankAccountId(wanted.account()),
                new WayId(wanted.way()),
                wanted.checkDate(),
                wanted.name(),
                wanted.note(),
                wanted.rows());
    }

    @GetMapping("/batches/{batch}")
    DirectViews.DirectBatch typed(Actor by, @PathVariable long batch) {
        by.mayDo(Deed.READ);
        return views.batch(new BatchId(batch), direct.rows(new BatchId(batch)));
    }

    @PostMapping("/batches/{batch}")
    @Needs(Deed.EDIT_BATCH)
    void again(Actor by, @PathVariable long batch, @Valid @RequestBody DirectWanted wanted) {
        direct.makeAnew(by, new BatchId(batch), wanted.version(), read(wanted));
    }

    /** Enters a payee who is paid once; answers its number. */
    @PostMapping("/payees")
    @Needs(Deed.ENTER_VENDOR)
    OneTimePayees.Entered enter(Actor by, @Valid @RequestBody OneTimePayee wanted) {
        return payees.enter(
                by,
                new OneTimePayees.Wanted(
                        wanted.name(),
                        wanted.address(),
                        wanted.postalCode(),
                        new BankAccountId(wanted.bankAccount()),
                        new WayId(wanted.way()),
                        wanted.account().isBlank()
                                ? null
                                : BankDetails.typed(
                                        wanted.routing(),
                                        wanted.account(),
                                        wanted.savings(),
                                        wanted.bic() == null ? "" : wanted.bic())));
    }
}
