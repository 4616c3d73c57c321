package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.server.invoices.Holds;
import leveltally.server.invoices.InvoiceChanging;
import leveltally.server.invoices.Offsets;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Whatever people do, in whatever order, on whatever days they may: every law holds as of every day, what is owed is what a
 * slow replay of the ledger says, and when everything is undone the balances are those of the beginning.
 */
class AnySequenceTest {
    private static final List<String> VENDORS =
            List.of("Bollard Foundry", "Pelorus Charts", "Ironwrack Chain", "Coaming Timber");
    private static final LocalDate FIRST = LocalDate.of(2026, 11, 2);
    private static int serial = 1;

    private enum Step {
        ENTER,
        CREDIT,
        PAY,
        PAY_PART,
        PAY_BY_CHECK,
        UNDO,
        UNDO_HELD,
        UNDO_AGAINST_LINES,
        OFFSET,
        UNDO_OFFSET,
        CANCEL
    }

    private final List<InvoiceId> invoices = new ArrayList<>();
    private final List<PaymentId> payments = new ArrayList<>();
    private final List<Long> offsets = new ArrayList<>();
    private Random random = new Random();

    @ParameterizedTest
    @ValueSource(longs = {20_261_112, 41_237})
    void everyLawHoldsAndUndoingEverythingReturnsEveryBalance(long seed) {
        random = new Random(seed);
        Map<String, Long> before = balances();
        Map<Step, Integer> done = new EnumMap<>(Step.class);
        for (int i = 0; i < 60; i++) {
            // there is something to pay from the beginning, and as much comes as goes
            Step step =
                    i < 8 || random.nextInt(6) == 0 ? Step.ENTER : Step.values()[random.nextInt(Step.values().length)];
            try {
                if (take(step)) {
                    done.merge(step, 1, Integer::sum);
                }
            } catch (Refusal refused) {
                // what cannot be so is refused, and then nothing of it is there
                assertThat(refused.sentence()).isNotBlank();
            }
            if (i % 12 == 11) {
                everyLawHolds(seed + ", step " + i);
                owedIsWhatTheLedgerSays(seed + ", step " + i);
            }
        }
        assertThat(done.keySet()).as("%s", done).hasSizeGreaterThan(7);
        undoEverything();
        everyLawHolds(seed + ", everything undone");
        assertThat(balances()).as("seed " + seed).isEqualTo(before);
    }

    private boolean take(Step step) {
        return switch (step) {
            case ENTER -> invoices.add(App.invoice(any(VENDORS), amount(), FIRST.plusDays(random.nextInt(8))));
            case CREDIT -> {
                invoices.add(BenchTest.credit(any(VENDORS), amount()));
                yield true;
            }
            case PAY -> pay(false);
            case PAY_PART -> pay(true);
            case PAY_BY_CHECK -> payByCheck();
            case UNDO -> undo(Wanted.Fate.OPEN);
            case UNDO_HELD -> undo(new Wanted.Fate(Wanted.How.HELD, null, "looked at"));
            case UNDO_AGAINST_LINES -> undo(new Wanted.Fate(Wanted.How.OWN_LINES, null, null));
            case OFFSET -> offset();
            case UNDO_OFFSET -> undoOffset();
            case CANCEL -> cancel();
        };
    }

    private <T> T any(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private String amount() {
        return (1 + random.nextInt(900)) + "." + (10 + random.nextInt(90));
    }

    /** Mostly in the open month, sometimes in a locked one, which the ledger takes today. */
    private LocalDate day() {
        return random.nextInt(6) == 0 ? LocalDate.of(2026, 10, 20) : FIRST.plusDays(random.nextInt(11));
    }

    private List<InvoiceId> open(String kind) {
        return invoices.stream()
                .filter(id -> number(
                                "SELECT COUNT(*) FROM invoice WHERE id = ? AND is_open = 1 AND kind = ? AND hold_reason IS NULL"
                                        + " AND cancelled_on IS NULL",
                                id.value(),
                                kind)
                        == 1)
                .toList();
    }

    private boolean pay(boolean part) {
        List<InvoiceId> open = open("INVOICE");
        if (open.isEmpty()) {
            return false;
        }
        InvoiceId invoice = any(open);
        long owes = number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
        long paid = part ? 1 + random.nextInt((int) owes) : owes;
        BatchId batch = App.elsewhere(
                "Wires",
                new OutsideRow(
                        "ANY " + System.nanoTime() + serial++,
                        day(),
                        text(
                                "SELECT v.name FROM invoice i JOIN vendor v ON v.id = i.vendor_id WHERE i.id = ?",
                                invoice),
                        text("SELECT reference FROM invoice WHERE id = ?", invoice),
                        Money.ofMinor(paid, "USD").toString()));
        bean(Posting.class).post(ines(), batch);
        return payments.add(new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value())));
    }

    private static String text(String sql, InvoiceId of) {
        return App.jdbc().sql(sql).param(of.value()).query(String.class).single();
    }

    /** A printed check, with the credits that the run takes along. */
    private boolean payByCheck() {
        List<InvoiceId> open = open("INVOICE");
        if (open.isEmpty() || random.nextInt(3) > 0) {
            return false;
        }
        BatchId batch = App.printed(any(open));
        bean(Posting.class).post(ines(), batch);
        App.jdbc()
                .sql("SELECT id FROM payment WHERE batch_id = ? AND posted_entry_id IS NOT NULL")
                .param(batch.value())
                .query(Long.class)
                .list()
                .forEach(id -> payments.add(new PaymentId(id)));
        return true;
    }

    private List<PaymentId> standing() {
        return payments.stream()
                .filter(id ->
                        number("SELECT COUNT(*) FROM payment WHERE id = ? AND undone_entry_id IS NULL", id.value())
                                == 1)
                .toList();
    }

    /** A printed check is dated a day ahead. */
    private static Actor later(Actor who) {
        return new Actor(who.person(), who.name(), who.roles(), App.CHECK_DATE, java.time.Instant.now(), who.from());
    }

    private boolean undo(Wanted.Fate fate) {
        List<PaymentId> standing = standing();
        if (standing.isEmpty()) {
            return false;
        }
        PaymentId payment = any(standing);
        boolean own = fate.how() == Wanted.How.OPEN && random.nextBoolean();
        Wanted wanted = new Wanted(
                List.of(new Wanted.One(payment.value(), List.of())),
                own ? null : App.CHECK_DATE,
                fate,
                null,
                "RET " + serial++);
        Undoing.Asked asked = bean(Undoing.class).undo(later(ines()), wanted, "any reason");
        if (asked.waits()) {
            bean(Questions.class).agree(later(App.ruth()), asked.id());
        }
        return true;
    }

    private boolean offset() {
        List<InvoiceId> credits = open("CREDIT");
        if (credits.isEmpty()) {
            return false;
        }
        InvoiceId credit = any(credits);
        long open = number("SELECT open_minor FROM invoice WHERE id = ?", credit.value());
        String vendor = text("SELECT v.name FROM invoice i JOIN vendor v ON v.id = i.vendor_id WHERE i.id = ?", credit);
        InvoiceId invoice = App.invoice(vendor, Money.ofMinor(open, "USD").toString());
        invoices.add(invoice);
        return offsets.add(bean(Offsets.class)
                .make(ines(), App.vendor(vendor), List.of(invoice), List.of(credit))
                .id());
    }

    private boolean undoOffset() {
        if (offsets.isEmpty()) {
            return false;
        }
        Long offset = any(offsets);
        bean(Offsets.class).undo(ines(), offset, App.TODAY);
        return offsets.remove(offset);
    }

    private boolean cancel() {
        List<InvoiceId> open = open("INVOICE");
        if (open.isEmpty()) {
            return false;
        }
        InvoiceId invoice = any(open);
        bean(InvoiceChanging.class).cancel(ines(), invoice, App.TODAY, "any reason");
        return invoices.remove(invoice);
    }

    private void undoEverything() {
        for (PaymentId payment : standing()) {
            bean(Undoing.class)
                    .undo(
                            later(ines()),
                            new Wanted(
                                    List.of(new Wanted.One(payment.value(), List.of())),
                                    App.CHECK_DATE,
                                    Wanted.Fate.OPEN,
                                    null,
                                    "RET " + serial++),
                            "the end");
        }
        offsets.forEach(offset -> bean(Offsets.class).undo(later(ines()), offset, App.CHECK_DATE));
        for (InvoiceId invoice : invoices) {
            boolean stands = number(
                            "SELECT COUNT(*) FROM invoice WHERE id = ? AND cancelled_on IS NULL AND is_open = 1",
                            invoice.value())
                    == 1;
            if (!stands) {
                // what was undone against its own lines is settled by that, and its expense is gone as well
                continue;
            }
            if (number("SELECT COUNT(*) FROM invoice WHERE id = ? AND hold_reason IS NOT NULL", invoice.value()) == 1) {
                bean(Holds.class).release(ines(), invoice, "the end");
            }
            long open = number("SELECT open_minor FROM invoice WHERE id = ?", invoice.value());
            assertThat(open)
                    .as("nothing settles %s any more", invoice)
                    .isLessThanOrEqualTo(number("SELECT amount_minor FROM invoice WHERE id = ?", invoice.value()));
            if (open == number("SELECT amount_minor FROM invoice WHERE id = ?", invoice.value())) {
                bean(InvoiceChanging.class).cancel(later(ines()), invoice, App.CHECK_DATE, "the end");
            }
        }
        partlyCancelled();
    }

    /** What was partly cancelled keeps the rest of its expense and of what it owes; that much is taken off both. */
    private void partlyCancelled() {
        assertThat(invoices.stream()
                        .filter(id -> number(
                                        "SELECT COUNT(*) FROM invoice WHERE id = ? AND is_open = 1 AND cancelled_on IS NULL",
                                        id.value())
                                == 1)
                        .allMatch(id -> number(
                                        "SELECT COUNT(*) FROM settlement WHERE invoice_id = ? AND kind = 'CANCELLATION'",
                                        id.value())
                                > 0))
                .isTrue();
    }

    /** Every account but those of what stays owed of what was partly cancelled, which net out against each other. */
    private Map<String, Long> balances() {
        Map<String, Long> balances = new java.util.TreeMap<>();
        App.jdbc().sql("""
                        SELECT a.code, l.currency, SUM(l.debit_minor - l.credit_minor) AS minor FROM journal_line l
                        JOIN ledger_account a ON a.id = l.account_id WHERE a.code NOT IN ('2000', '5200')
                        GROUP BY a.code, l.currency
                        """).query((java.sql.ResultSet r) -> {
            balances.put(r.getString("code") + " " + r.getString("currency"), r.getLong("minor"));
        });
        balances.put(
                "2000 and 5200 USD",
                number("SELECT SUM(l.debit_minor - l.credit_minor) FROM journal_line l JOIN ledger_account a"
                        + " ON a.id = l.account_id WHERE a.code IN ('2000', '5200') AND l.currency = 'USD'"));
        balances.values().removeIf(minor -> minor == 0);
        return balances;
    }

    private static void everyLawHolds(String when) {
        assertThat(bean(Proof.class).run().laws())
                .as(when)
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    /** Replays settlements and entries day by day: open documents and the payables account agree at the end of each. */
    private static void owedIsWhatTheLedgerSays(String when) {
        for (LocalDate day = LocalDate.of(2026, 10, 31); !day.isAfter(App.CHECK_DATE); day = day.plusDays(1)) {
            long owed = number("""
                    SELECT SUM(CASE i.kind WHEN 'CREDIT' THEN -1 ELSE 1 END * (i.amount_minor
                      - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s WHERE s.invoice_id = i.id AND s.ledger_date <= ?), 0)))
                    FROM invoice i JOIN ledger_account a ON a.id = i.payables_account_id AND a.code = '2000'
                    WHERE i.ledger_date <= ? AND i.currency = 'USD'
                    """, day, day);
            long ledger = number(
                    "SELECT SUM(l.credit_minor - l.debit_minor) FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id"
                            + " JOIN ledger_account a ON a.id = l.account_id AND a.code = '2000'"
                            + " WHERE e.ledger_date <= ? AND l.currency = 'USD'",
                    day);
            assertThat(owed).as(when + ", on " + day).isEqualTo(ledger);
        }
    }
}
