package leveltally.server.demo;

import java.time.LocalDate;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.AchSender;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.TransferAgreement;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.electronic.ElectronicWays;
import leveltally.server.electronic.Filing;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.posting.Posting;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What goes by file: transfers of last week that the bank took, some that wait for a file, and an ACH file without an answer. */
@Component
class DemoElectronic {
    private static final Currency USD = Currency.getInstance("USD");
    private static final Currency EUR = Currency.getInstance("EUR");
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    private static final LocalDate LAST_WEEK = LocalDate.of(2026, 11, 5);
    private static final List<String> APPROVERS = List.of("maren", "aldo", "ruth");

    private final BankAccountSetup setup;
    private final ElectronicWays ways;
    private final Vendors vendors;
    private final VendorChanges changes;
    private final ChangeViews waiting;
    private final Entering entering;
    private final Due due;
    private final Making making;
    private final Sending sending;
    private final Approvals approvals;
    private final Batches batches;
    private final Filing filing;
    private final BankAnswers answers;
    private final Posting posting;
    private final JdbcClient jdbc;

    DemoElectronic(
            BankAccountSetup setup,
            ElectronicWays ways,
            Vendors vendors,
            VendorChanges changes,
            ChangeViews waiting,
            Entering entering,
            Due due,
            Making making,
            Sending sending,
            Approvals approvals,
            Batches batches,
            Filing filing,
            BankAnswers answers,
            Posting posting,
            JdbcClient jdbc) {
        this.setup = setup;
        this.ways = ways;
        this.vendors = vendors;
        this.changes = changes;
        this.waiting = waiting;
        this.entering = entering;
        this.due = due;
        this.making = making;
        this.sending = sending;
        this.approvals = approvals;
        this.batches = batches;
        this.filing = filing;
        this.answers = answers;
        this.posting = posting;
        this.jdbc = jdbc;
    }

    void tell(DemoCompany.Stage stage) {
        Actor joss = stage.cast().on(LAST_WEEK, "joss");
        BankAccountId continental = account("Continental");
        WayId transfers = way(continental);
        ways.set(
                joss,
                continental,
                transfers,
                files(
                        new TransferAgreement(
                                Message.PAIN_001_09, "Marrow Bay Ferries", "990073-118", Charges.SLEV, true),
                        "CT",
                        100_001));
        WayId ach =
                setup.addWay(joss, stage.operations(), new BankAccountSetup.WantedWay("ACH", PaymentMethod.ACH, false));
        ways.set(joss, stage.operations(), ach, files(ach(), "A", 500_001));
        transfers(stage, continental, transfers);
        achBatch(stage, ach);
    }

    private static ElectronicWays.WantedFiles files(
            leveltally.core.electronic.FileAgreement agreement, String prefix, long first) {
        return new ElectronicWays.WantedFiles(
                agreement, "", "", "150000.00", "250000.00", "", true, "17:00", 0, prefix, first, 0);
    }

    private static AchAgreement ach() {
        RoutingNumber bank = new RoutingNumber("990044105");
        return new AchAgreement(
                new AchSender(
                        bank,
                        "SKERROW TRUST",
                        "1994400117",
                        "MARROW BAY FERRIES",
                        "MARROW BAY",
                        "1994400117",
                        "INVOICES",
                        bank,
                        null),
                false,
                EntryClass.CCD);
    }

    /** Last week's were taken and are in the ledger; this week's are approved and wait for a file. */
    private void transfers(DemoCompany.Stage stage, BankAccountId from, WayId way) {
        Map<String, Long> lastWeek = new LinkedHashMap<>();
        lastWeek.put("Bracken Isle Ferries Pool", 261_400L);
        lastWeek.put("Señal Náutica Brisa", 88_250L);
        lastWeek.put("Île de Gorse Pêcheries", 174_975L);
        BatchId taken = batch(
                stage,
                LAST_WEEK,
                way,
                from,
                "Continental, early November",
                documents(stage, LocalDate.of(2026, 10, 20), EUR, "-441", lastWeek));
        long file =
                filing.file(stage.cast().on(LAST_WEEK, "ines"), taken).files().get(0);
        answers.accepted(stage.cast().on(LAST_WEEK.plusDays(1), "ines"), file, "status report: all accepted");
        posting.post(stage.cast().on(LAST_WEEK.plusDays(1), "ines"), taken);
        Map<String, Long> now = new LinkedHashMap<>();
        now.put("Werft Köhlersand", 921_300L);
        now.put("Bracken Isle Ferries Pool", 133_040L);
        batch(
                stage,
                TODAY,
                way,
                from,
                "Continental, mid-November",
                documents(stage, LocalDate.of(2026, 10, 30), EUR, "-452", now));
    }

    /** Three vendors of the year that asked to be paid by ACH; their file was handed over, and the bank is silent. */
    private void achBatch(DemoCompany.Stage stage, WayId way) {
        stage.vendors()
                .put("Halyard & Cleat Works", vendor(stage, "V1911", "Halyard & Cleat Works", "Chandlery", false));
        stage.vendors().put("Marlinspike Data", vendor(stage, "V1912", "Marlinspike Data", "Office", false));
        stage.vendors()
                .put("Eelgrass Crew Training", vendor(stage, "V1913", "Eelgrass Crew Training", "Crew services", true));
        Map<String, Long> owed = new LinkedHashMap<>();
        owed.put("Halyard & Cleat Works", 318_560L);
        owed.put("Marlinspike Data", 74_900L);
        owed.put("Eelgrass Crew Training", 126_000L);
        BatchId batch = batch(
                stage,
                TODAY,
                way,
                stage.operations(),
                "ACH, second week",
                documents(stage, LocalDate.of(2026, 10, 28), USD, "-1107", owed));
        filing.file(stage.cast().on(TODAY, "tomas"), batch);
        owed.replaceAll((vendor, minor) -> minor / 3 + 1_117);
        // due later: they wait for the run after next
        documents(stage, LocalDate.of(2026, 11, 3), USD, "-1131", owed);
    }

    private VendorId vendor(DemoCompany.Stage stage, String number, String name, String group, boolean savings) {
        BankDetails bank = BankDetails.typed("990073053", "6120" + number.substring(1) + "38", savings, "");
        VendorId id = vendors.add(
                stage.cast().on(LAST_WEEK, "ines"),
                new Vendor(new VendorId(0), number, name, group, 4, PaymentMethod.ACH, USD, Terms.net(30), null, false),
                new RemitTo(name, List.of(number.substring(3) + " Tide Mill Yard", "Skerrow 41019")),
                "41019",
                bank);
        waiting.waiting().stream()
                .filter(one -> one.vendor() == id.value())
                .forEach(one -> changes.confirm(stage.cast().on(LAST_WEEK, "ruth"), one.id(), bank));
        return id;
    }

    private List<InvoiceId> documents(
            DemoCompany.Stage stage, LocalDate dated, Currency currency, String number, Map<String, Long> owed) {
        AccountId payables = currency.equals(EUR) ? stage.payablesEur() : stage.payables();
        return owed.entrySet().stream()
                .map(one -> entering.enter(
                        stage.cast().on(dated, "tomas"),
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                stage.vendors().get(one.getKey()),
                                one.getKey().substring(0, 2).toUpperCase(java.util.Locale.ROOT) + number,
                                dated,
                                dated,
                                payables,
                                Money.zero(currency),
                                List.of(new NewInvoice.Line(
                                        stage.expenses().get("Office"), Money.ofMinor(one.getValue(), currency))))))
                .toList();
    }

    /** A batch of exactly these, made by Ines and approved. */
    private BatchId batch(
            DemoCompany.Stage stage,
            LocalDate on,
            WayId way,
            BankAccountId from,
            String name,
            List<InvoiceId> documents) {
        DueQuestion question = DueQuestion.of(from.value(), on.plusDays(1).toString(), "2000-01-01", null)
                .by(way)
                .marked(
                        null,
                        documents.stream().map(id -> String.valueOf(id.value())).collect(Collectors.joining(".")));
        var taken = due.select(question, on);
        BatchId batch = making.make(
                stage.cast().on(on, "ines"),
                new NewBatch(name, "", taken.taken().size(), taken.toPay().toString(), question, null));
        sending.send(stage.cast().on(on, "ines"), batch, batches.get(batch).version());
        for (String approver : APPROVERS) {
            if (batches.get(batch).state() == BatchState.IN_APPROVAL) {
                approvals.approve(stage.cast().on(on, approver), batch, approvals.seen(batch));
            }
        }
        return batch;
    }

    private BankAccountId account(String name) {
        return new BankAccountId(jdbc.sql("SELECT id FROM bank_account WHERE name = ?")
                .param(name)
                .query(Long.class)
                .single());
    }

    private WayId way(BankAccountId account) {
        return new WayId(jdbc.sql("SELECT id FROM way_to_pay WHERE bank_account_id = ? ORDER BY position LIMIT 1")
                .param(account.value())
                .query(Long.class)
                .single());
    }
}
