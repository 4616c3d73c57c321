package leveltally.server.demo;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.Stock;
import leveltally.core.contacts.Dormancy;
import leveltally.core.contacts.How;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.batches.Batches;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.contacts.Contacts;
import leveltally.server.contacts.Unclaimed;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.WayToPay;
import leveltally.server.outside.CardStatements;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.ToldChange;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What was paid elsewhere lately: checks from the book in the harbour office, wires, the company card and its statement. */
@Component
class DemoElsewhere {
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    private static final String OWED = "2100";

    private final Accounts accounts;
    private final BankAccountSetup setup;
    private final SeriesSetup series;
    private final Vendors vendors;
    private final VendorChanges changes;
    private final ChangeViews waiting;
    private final Entering entering;
    private final OutsidePayments outside;
    private final CardStatements statements;
    private final Batches batches;
    private final Approvals approvals;
    private final Posting posting;
    private final Contacts contacts;
    private final Unclaimed unclaimed;
    private final JdbcClient jdbc;

    DemoElsewhere(
            Accounts accounts,
            BankAccountSetup setup,
            SeriesSetup series,
            Vendors vendors,
            VendorChanges changes,
            ChangeViews waiting,
            Entering entering,
            OutsidePayments outside,
            CardStatements statements,
            Batches batches,
            Approvals approvals,
            Posting posting,
            Contacts contacts,
            Unclaimed unclaimed,
            JdbcClient jdbc) {
        this.accounts = accounts;
        this.setup = setup;
        this.series = series;
        this.vendors = vendors;
        this.changes = changes;
        this.waiting = waiting;
        this.entering = entering;
        this.outside = outside;
        this.statements = statements;
        this.batches = batches;
        this.approvals = approvals;
        this.posting = posting;
        this.contacts = contacts;
        this.unclaimed = unclaimed;
        this.jdbc = jdbc;
    }

    void tell(DemoCompany.Stage stage) {
        Actor joss = stage.cast().on(TODAY, "joss");
        AccountId owed = accounts.add(joss, new AccountFacts(OWED, "Owed to the card's issuer", AccountKind.LIABILITY));
        VendorId issuer = vendors.add(
                stage.cast().on(TODAY, "ines"),
                new Vendor(
                        new VendorId(0),
                        "V1900",
                        "Skerrow Trust Card Office",
                        "Office",
                        2,
                        PaymentMethod.CHECK,
                        USD,
                        Terms.net(15),
                        null,
                        false),
                new RemitTo("Skerrow Trust Card Office", List.of("1 Customs House Square", "Skerrow 40002")),
                "40002",
                null);
        changes.confirmAll(
                stage.cast().on(TODAY, "ruth"),
                waiting.waiting().stream()
                        .filter(one -> one.vendor() == issuer.value())
                        .map(ToldChange::id)
                        .toList());
        series.add(
                joss,
                stage.operations(),
                "Check book, harbour office",
                new SeriesSetup.Wanted(new NumberRange("H-", 101, null), Stock.BY_HAND, "", "dollars", ""));
        WayId book = way(stage, "Check book, harbour office");
        WayId wires = setup.addWay(
                joss, stage.operations(), new BankAccountSetup.WantedWay("Wires", PaymentMethod.WIRE, true));
        WayId card = setup.addCard(joss, stage.operations(), "Company card", new WayToPay.Card(owed, issuer));
        invoice(stage, "Petrel Radio Service", "PR-7741", "2026-11-05", 41_860, "Yard & engine");
        invoice(stage, "Saltmarsh Marine Fuels", "SMF-9908", "2026-11-06", 1_248_000, "Fuel");
        record(
                stage,
                book,
                "2026-11-09",
                List.of(
                        row("H-101", "Petrel Radio Service", "PR-7741", "418.60", "2026-11-09"),
                        row("H-102", "Ebb Tide Linen", "5400", "86.40", "2026-11-09")));
        record(
                stage,
                wires,
                "2026-11-10",
                List.of(row("FT 2291-88", "Saltmarsh Marine Fuels", "SMF-9908", "12480.00", "2026-11-10")));
        record(
                stage,
                card,
                "2026-11-10",
                List.of(
                        row("88213-01", "Kittiwake Uniforms", "5700", "212.75", "2026-11-03"),
                        row("88213-02", "Lanternlight Electric", "5600/PIER-2", "96.20", "2026-11-05"),
                        row("88213-03", "Ebb Tide Linen", "5400", "144.00", "2026-11-09")));
        ahead(stage, wires);
        statement(stage, owed, issuer);
        accounts.add(joss, new AccountFacts("2300", "Unclaimed property", AccountKind.LIABILITY));
        unclaimed.keep(
                stage.cast().on(TODAY, "ruth"),
                Dormancy.read("40 Skerrow 3\n41 Skerrow 3\n77 Port Gorse 5\n* elsewhere 5"));
        contacts.note(
                stage.cast().on(LocalDate.of(2026, 10, 20), "ines"),
                jdbc.sql(
                                "SELECT id FROM payment WHERE state = 'OUTSTANDING' AND check_date < '2026-05-01' ORDER BY check_date LIMIT 1")
                        .query((r, n) -> new PaymentId(r.getLong("id")))
                        .list(),
                How.CALL,
                LocalDate.of(2026, 10, 20),
                "They look for it and call back");
        outside.record(
                stage.cast().on(TODAY, "tomas"),
                new OutsidePayments.Recorded(
                        stage.operations(),
                        wires,
                        "",
                        "Ordered by the harbour master",
                        List.of(row("FT 2304-11", "Fathom Survey Partners", "5500", "2150.00", "2026-11-11"))),
                true);
    }

    private WayId way(DemoCompany.Stage stage, String name) {
        return new WayId(jdbc.sql("SELECT id FROM way_to_pay WHERE bank_account_id = ? AND name = ?")
                .params(stage.operations().value(), name)
                .query(Long.class)
                .single());
    }

    private static OutsideRow row(String number, String vendor, String said, String amount, String paidOn) {
        return new OutsideRow(number, LocalDate.parse(paidOn), vendor, said, amount);
    }

    private void invoice(
            DemoCompany.Stage stage, String vendor, String reference, String dated, long minor, String group) {
        LocalDate date = LocalDate.parse(dated);
        entering.enter(
                stage.cast().on(date, "tomas"),
                new NewInvoice(
                        InvoiceKind.INVOICE,
                        stage.vendors().get(vendor),
                        reference,
                        date,
                        date,
                        stage.payables(),
                        Money.zero(USD),
                        List.of(new NewInvoice.Line(stage.expenses().get(group), Money.ofMinor(minor, USD)))));
    }

    /** Recorded by Ines, agreed to, posted. */
    private void record(DemoCompany.Stage stage, WayId way, String day, List<OutsideRow> rows) {
        LocalDate on = LocalDate.parse(day);
        Actor clerk = stage.cast().on(on, "ines");
        List<BatchId> made =
                outside.record(clerk, new OutsidePayments.Recorded(stage.operations(), way, "", "", rows), true);
        for (BatchId batch : made) {
            for (String approver : List.of("maren", "aldo", "ruth")) {
                if (batches.get(batch).state() == BatchState.IN_APPROVAL) {
                    approvals.approve(stage.cast().on(on, approver), batch, approvals.seen(batch));
                }
            }
            posting.post(clerk, batch);
        }
    }

    /** Paid ahead: a deposit that its invoice has met since, and the winter's docking, which is not to be used yet. */
    private void ahead(DemoCompany.Stage stage, WayId wires) {
        record(
                stage,
                wires,
                "2026-11-09",
                List.of(
                        row("FT 2274-02", "Lanternlight Electric", "ahead LE-PF-88", "1500.00", "2026-11-09"),
                        row(
                                "FT 2274-03",
                                "Blackwater Dry Dock",
                                "ahead BDD-2701 from 2027-01-04",
                                "9600.00",
                                "2026-11-09")));
        invoice(stage, "Lanternlight Electric", "LE-PF-88", "2026-11-11", 234_000, "Yard & engine");
    }

    /** Two of the three payments by card stand on the issuer's first statement. */
    private void statement(DemoCompany.Stage stage, AccountId owed, VendorId issuer) {
        LocalDate date = LocalDate.of(2026, 11, 10);
        Actor clerk = stage.cast().on(TODAY, "ines");
        InvoiceId statement = entering.enter(
                clerk,
                new NewInvoice(
                        InvoiceKind.INVOICE,
                        issuer,
                        "STMT 2026-11",
                        date,
                        date,
                        stage.payables(),
                        Money.zero(USD),
                        List.of(new NewInvoice.Line(owed, Money.ofMinor(30_895, USD)))));
        List<Long> matched = jdbc.sql("SELECT payment_id FROM outside_number WHERE number IN (?, ?)")
                .params("88213-01", "88213-02")
                .query(Long.class)
                .list();
        Set<PaymentId> on = matched.stream().map(PaymentId::new).collect(Collectors.toSet());
        statements.match(clerk, statement, on);
    }
}
