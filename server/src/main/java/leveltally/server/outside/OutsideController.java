package leveltally.server.outside;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.outside.CardLines;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Payments made elsewhere: listed, recorded, recorded anew; and the statements of cards. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class OutsideController {
    /** As many as are recorded in one deed. */
    private static final int MOST_ROWS = 300;

    private final OutsidePayments outside;
    private final OutsideList list;
    private final OutsideViews views;
    private final CardStatements statements;

    OutsideController(OutsidePayments outside, OutsideList list, OutsideViews views, CardStatements statements) {
        this.outside = outside;
        this.list = list;
        this.views = views;
        this.statements = statements;
    }

    /** Rows of one way to pay; {@code batch} is the one they are recorded in already, 0 for none. */
    record OutsideAsked(
            long account,
            long way,
            long batch,
            @NotNull @Size(max = MOST_ROWS) List<@NotNull @Valid OutsideRow> rows) {}

    /** {@code name} empty: as its way and its day are called. */
    record OutsideWanted(
            long account,
            long way,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 300) String note,
            boolean send,
            @NotNull @Size(max = MOST_ROWS) List<@NotNull @Valid OutsideRow> rows) {}

    record OutsideAgain(
            long version,
            long account,
            long way,
            @NotNull @Size(max = 80) String name,
            @NotNull @Size(max = 300) String note,
            @NotNull @Size(max = MOST_ROWS) List<@NotNull @Valid OutsideRow> rows) {}

    record CardMatched(@NotNull @Size(max = 2_000) List<@NotNull Long> payments) {}

    /** What was made elsewhere, the newest first; {@code text} finds by number or payee. */
    @GetMapping("/outside")
    OutsideListed listed(
            Actor by,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(required = false) @Nullable Long way,
            @RequestParam(required = false) @Nullable LocalDate from,
            @RequestParam(required = false) @Nullable LocalDate to) {
        by.mayDo(Deed.READ);
        return list.of(text, way, from, to);
    }

    /** The ways whose payments can be recorded. */
    @GetMapping("/outside/ways")
    List<OutsideWay> ways(Actor by) {
        by.mayDo(Deed.READ);
        return views.ways();
    }

    /** How typed rows are understood; nothing is kept. */
    @PostMapping("/outside/look")
    @Needs(Deed.READ)
    OutsideLooked look(Actor by, @Valid @RequestBody OutsideAsked asked) {
        by.mayDo(Deed.READ);
        return views.looked(outside.look(
                by, new BankAccountId(asked.account()), new WayId(asked.way()), asked.batch(), asked.rows()));
    }

    /** Records them; answers with the batches, one for each day. */
    @PostMapping("/outside")
    @Needs(Deed.RECORD_OUTSIDE)
    List<Long> record(Actor by, @Valid @RequestBody OutsideWanted wanted) {
        return outside
                .record(
                        by,
                        new OutsidePayments.Recorded(
                                new BankAccountId(wanted.account()),
                                new WayId(wanted.way()),
                                wanted.name(),
                                wanted.note(),
                                wanted.rows()),
                        wanted.send())
                .stream()
                .map(BatchId::value)
                .toList();
    }

    @GetMapping("/outside/batches/{batch}")
    OutsideBatch recorded(Actor by, @PathVariable long batch) {
        by.mayDo(Deed.READ);
        return views.batch(new BatchId(batch), outside.rows(new BatchId(batch)));
    }

    @PostMapping("/outside/batches/{batch}")
    @Needs(Deed.RECORD_OUTSIDE)
    void again(Actor by, @PathVariable long batch, @Valid @RequestBody OutsideAgain wanted) {
        outside.recordAnew(
                by,
                new BatchId(batch),
                wanted.version(),
                new OutsidePayments.Recorded(
                        new BankAccountId(wanted.account()),
                        new WayId(wanted.way()),
                        wanted.name(),
                        wanted.note(),
                        wanted.rows()));
    }

    /** The payments by card that stand, or could stand, on an invoice of the card's issuer. */
    @GetMapping("/invoices/{id}/statement")
    CardStatements.StatementView statement(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        CardStatements.StatementView view = statements.view(by, new InvoiceId(id));
        if (view == null) {
            throw Refusal.notFound("no-statement", "This is no statement of a card's issuer.");
        }
        return view;
    }

    /** Which payments stand on it. */
    @PostMapping("/invoices/{id}/statement")
    @Needs(Deed.RECORD_OUTSIDE)
    CardStatements.StatementView match(Actor by, @PathVariable long id, @Valid @RequestBody CardMatched wanted) {
        statements.match(
                by,
                new InvoiceId(id),
                wanted.payments().stream().map(PaymentId::new).collect(Collectors.toSet()));
        return statement(by, id);
    }

    record CardText(@NotNull @Size(max = 200_000) String text) {}

    /** What lines copied from a statement come to. */
    record CardTextRead(List<Long> matched, List<CardLines.Other> others) {}

    /** Finds the payments that lines of a statement name; what was found is kept by the deed above. */
    @PostMapping("/invoices/{id}/statement/lines")
    @Needs(Deed.READ)
    CardTextRead lines(Actor by, @PathVariable long id, @Valid @RequestBody CardText given) {
        CardLines.Read read = statements.read(by, new InvoiceId(id), given.text());
        return new CardTextRead(read.matched().stream().map(PaymentId::value).toList(), read.others());
    }
}
