package leveltally.server.demo;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.printers.PrinterId;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.core.selection.CashWay;
import leveltally.core.selection.Selection;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.Holds;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.CashMovements;
import leveltally.server.ledger.Periods;
import leveltally.server.posting.Posting;
import leveltally.server.printers.Printers;
import leveltally.server.printing.Answers;
import leveltally.server.printing.Printing;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.selection.SavedCriteria;
import leveltally.server.vendors.Vendors;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Twelve months of the made-up company and what lies on its desks today, from a fixed seed, deed by deed through the
 * services, so that every law holds by the same means as for a user.
 */
@Component
class DemoStory {
    private static final LocalDate FIRST_RUN = LocalDate.of(2025, 11, 14);
    private static final LocalDate NEXT_RUN = LocalDate.of(2026, 11, 13);
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    private static final YearMonth LAST_LOCKED = YearMonth.of(2026, 9);

    /** Checks of March and April that nobody ever presented. */
    private static final Set<Long> LOST_IN_THE_SPRING = Set.of(41_355L, 41_372L, 41_410L, 41_427L);

    private final Random random = new Random(20_261_112);
    private final Entering entering;
    private final Holds holds;
    private final Vendors vendors;
    private final Due due;
    private final SavedCriteria criteria;
    private final Batches batches;
    private final Making making;
    private final Approvals approvals;
    private final Sending sending;
    private final Turns turns;
    private final Printing printing;
    private final Printers printers;
    private final Answers said;
    private final Posting posting;
    private final Undoing undoing;
    private final BankFiles files;
    private final BankAnswers answers;
    private final Periods periods;
    private final CashMovements movements;
    private final JdbcClient jdbc;
    private final TransactionTemplate together;
    private final DemoApproval asking;
    private final DemoWishes wishes;
    private final DemoElsewhere elsewhere;
    private final DemoElectronic electronic;
    private final DemoDirect direct;
    private final DemoBank bank;
    private int serial = 100;

    DemoStory(
            Entering entering,
            Holds holds,
            Vendors vendors,
            Due due,
            SavedCriteria criteria,
            Batches batches,
            Making making,
            Approvals approvals,
            Sending sending,
            Turns turns,
            Printing printing,
            Printers printers,
            Answers said,
            Posting posting,
            Undoing undoing,
            BankFiles files,
            BankAnswers answers,
            Periods periods,
            CashMovements movements,
            JdbcClient jdbc,
            TransactionTemplate together,
            DemoApproval asking,
            DemoWishes wishes,
            DemoElsewhere elsewhere,
            DemoElectronic electronic,
            DemoDirect direct,
            DemoBank bank) {
        this.bank = bank;
        this.elsewhere = elsewhere;
        this.electronic = electronic;
        this.direct = direct;
        this.wishes = wishes;
        this.entering = entering;
        this.holds = holds;
        this.vendors = vendors;
        this.due = due;
        this.criteria = criteria;
        this.batches = batches;
        this.making = making;
        this.approvals = approvals;
        this.sending = sending;
        this.turns = turns;
        this.printing = printing;
        this.printers = printers;
        this.said = said;
        this.posting = posting;
        this.undoing = undoing;
        this.files = files;
        this.answers = answers;
        this.periods = periods;
        this.movements = movements;
        this.jdbc = jdbc;
        this.together = together;
        this.asking = asking;
    }

    /** What is open today would have been paid in so many runs. */
    private static final int RUNS_OPEN = 3;

    void tell(DemoCompany.Stage stage) {
        asking.keepRoutes(stage);
        LocalDate run = FIRST_RUN;
        for (YearMonth month = DemoCompany.FIRST; month.isBefore(YearMonth.of(2026, 11)); month = month.plusMonths(1)) {
            invoicesOf(stage, month);
            if (month.equals(LAST_LOCKED.plusMonths(1))) {
                wishes.keep(stage.cast().on(month.atDay(1), "ines"), stage.vendors());
            }
            while (YearMonth.from(run).equals(month)) {
                payOperations(stage, run);
                run = run.plusDays(14);
            }
            payWorks(stage, month.atDay(20));
            clearUpTo(stage, month);
            if (!month.isAfter(LAST_LOCKED)) {
                periods.lock(stage.cast().on(month.atEndOfMonth(), "ruth"), month);
            }
        }
        today(stage);
    }

    // ------------------------------------------------------------------ history

    private void invoicesOf(DemoCompany.Stage stage, YearMonth month) {
        boolean euroToo = month.isAfter(LAST_LOCKED);
        together.executeWithoutResult(status -> {
            for (DemoVendors.Seed seed : DemoVendors.ALL) {
                boolean rare = seed.priority() >= 4 && month.getMonthValue() % 2 == 1;
                boolean euro = seed.currency().equals("EUR") && !euroToo;
                if (!rare && !euro && !DemoVendors.NEVER_PAID.contains(seed.name())) {
                    LocalDate date = month.atDay(1 + random.nextInt(26));
                    enter(stage, seed, date, amount(seed), reference(seed));
                }
            }
        });
    }

    private long amount(DemoVendors.Seed seed) {
        return Math.round(seed.usual() * 100L * (0.6 + 0.8 * random.nextDouble()));
    }

    private String reference(DemoVendors.Seed seed) {
        serial += 1 + random.nextInt(9);
        return seed.prefix() + serial;
    }

    private InvoiceId enter(
            DemoCompany.Stage stage, DemoVendors.Seed seed, LocalDate date, long minor, String reference) {
        return enter(stage, seed, date, minor, reference, InvoiceKind.INVOICE, 0);
    }

    private InvoiceId enter(
            DemoCompany.Stage stage,
            DemoVendors.Seed seed,
            LocalDate date,
            long minor,
            String reference,
            InvoiceKind kind,
            long freight) {
        VendorId vendor = stage.vendors().get(seed.name());
        AccountId expense = stage.expenses().get(seed.group());
        boolean euro = seed.currency().equals("EUR");
        NewInvoice invoice = new NewInvoice(
                kind,
                vendor,
                reference,
                date,
                date,
                euro ? stage.payablesEur() : stage.payables(),
                Money.ofMinor(freight, seed.currency()),
                List.of(new NewInvoice.Line(expense, Money.ofMinor(minor, seed.currency()))));
        String clerk = serial % 3 == 0 ? "tomas" : "ines";
        return entering.enter(stage.cast().on(date, clerk), invoice);
    }

    private void payOperations(DemoCompany.Stage stage, LocalDate run) {
        String name = "Fortnight to " + run.getDayOfMonth() + " "
                + run.getMonth().getDisplayName(java.time.format.TextStyle.SHORT, java.util.Locale.ENGLISH);
        BatchId batch = make(stage, stage.operations(), run, run, name, null, "ines");
        if (batch == null) {
            return;
        }
        approve(stage, batch, run, "ines");
        boolean skip = run.equals(LocalDate.of(2026, 6, 12));
        print(stage, stage.operations(), batch, run, skip, run.getMonthValue() % 3 == 0);
        posting.post(stage.cast().on(run, "ines"), batch);
        if (run.isBefore(LocalDate.of(2026, 10, 30))) {
            long file = files.make(stage.cast().on(run, "tomas"), stage.operations());
            if (run.equals(LocalDate.of(2026, 9, 4))) {
                answers.refused(stage.cast().on(run, "tomas"), file, "The bank's page was closed while it was sent");
                file = files.make(stage.cast().on(run, "tomas"), stage.operations());
            }
            answers.accepted(stage.cast().on(run, "tomas"), file, "");
        }
        if (run.getMonthValue() % 4 == 2) {
            voidOne(stage, batch, run);
        }
    }

    private void payWorks(DemoCompany.Stage stage, LocalDate run) {
        VendorId yard = stage.vendors().get("Blackwater Dry Dock");
        BatchId batch = make(
                stage,
                stage.works(),
                run,
                run.plusDays(20),
                "Dry dock " + run.getMonthValue() + "/" + run.getYear(),
                yard,
                "tomas");
        if (batch != null) {
            approve(stage, batch, run, "tomas");
            print(stage, stage.works(), batch, run, false, false);
            posting.post(stage.cast().on(run, "tomas"), batch);
        }
    }

    private @Nullable BatchId make(
            DemoCompany.Stage stage,
            BankAccountId account,
            LocalDate run,
            LocalDate dueBy,
            String name,
            @Nullable VendorId vendor,
            String clerk) {
        DueQuestion question = DueQuestion.of(
                account.value(),
                run.toString(),
                dueBy.plusDays(7).toString(),
                run.plusDays(14).toString());
        if (vendor != null) {
            question = question.toVendors(List.of(vendor.value()));
        }
        return makeOf(stage, question, run, name, clerk);
    }

    private @Nullable BatchId makeOf(
            DemoCompany.Stage stage, DueQuestion question, LocalDate run, String name, String clerk) {
        Selection taken = due.select(question, run);
        int count = taken.taken().size();
        if (count == 0) {
            return null;
        }
        return making.make(
                stage.cast().on(run, clerk),
                new NewBatch(name, "", count, taken.toPay().toString(), question, null));
    }

    private void approve(DemoCompany.Stage stage, BatchId batch, LocalDate on, String clerk) {
        sending.send(stage.cast().on(on, clerk), batch, batches.get(batch).version());
        List<String> approvers =
                random.nextInt(3) == 0 ? List.of("aldo", "maren", "ruth") : List.of("maren", "aldo", "ruth");
        for (String approver : approvers) {
            if (batches.get(batch).state() == BatchState.IN_APPROVAL) {
                approvals.approve(stage.cast().on(on, approver), batch, approvals.seen(batch));
            }
        }
    }

    private void print(
            DemoCompany.Stage stage, BankAccountId account, BatchId batch, LocalDate on, boolean skip, boolean spoil) {
        Actor clerk = stage.cast().on(on, "ines");
        long next = nextNumber(account);
        Turn turn = turns.take(clerk, account, batch, "");
        long first = skip ? next + 2 : next;
        PrinterId tray = printers.inUse().get(0).id();
        long run = printing.print(
                        clerk,
                        batch,
                        turn.serial(),
                        first,
                        skip ? "Two sheets were missing from the new packet" : "",
                        tray)
                .run();
        List<Long> documents = documents(run);
        List<Said> answers = new ArrayList<>();
        for (int i = 0; i < documents.size(); i++) {
            boolean bad = spoil && i == documents.size() / 2;
            answers.add(new Said(documents.get(i), bad ? Answer.SPOILED : Answer.GOOD, bad ? "jammed" : ""));
        }
        said.answer(clerk, batch, answers);
        if (spoil) {
            Turn again = turns.take(clerk, account, batch, "");
            long second = printing.print(clerk, batch, again.serial(), nextNumber(account), "", tray)
                    .run();
            said.answer(
                    clerk,
                    batch,
                    documents(second).stream()
                            .map(d -> new Said(d, Answer.GOOD, ""))
                            .toList());
        }
    }

    private long nextNumber(BankAccountId account) {
        return jdbc.sql("SELECT next_number FROM series_of_account WHERE bank_account_id = :id AND stock <> 'BY_HAND'")
                .param("id", account.value())
                .query(Long.class)
                .single();
    }

    private List<Long> documents(long run) {
        return jdbc.sql("SELECT id FROM document WHERE run_id = :run ORDER BY position")
                .param("run", run)
                .query(Long.class)
                .list();
    }

    private void voidOne(DemoCompany.Stage stage, BatchId batch, LocalDate run) {
        Long payment = jdbc.sql("SELECT p.id FROM payment p WHERE p.batch_id = :batch AND p.state = 'OUTSTANDING'"
                        + " ORDER BY p.amount_minor LIMIT 1")
                .param("batch", batch.value())
                .query(Long.class)
                .single();
        undoing.undo(
                stage.cast().on(run, "ines"),
                Wanted.broughtBack(new PaymentId(payment), run),
                "Payee asked for another date");
    }

    /** The bank pays most checks within a week or two; a few of the spring never come back. */
    private void clearUpTo(DemoCompany.Stage stage, YearMonth month) {
        record Open(BankAccountId account, long number, LocalDate date, Money amount) {}
        LocalDate until = month.atEndOfMonth().minusDays(12);
        Map<BankAccountId, List<DemoBank.Moved>> paid = new LinkedHashMap<>();
        paid.put(stage.operations(), new ArrayList<>());
        paid.put(stage.works(), new ArrayList<>());
        jdbc
                .sql("""
                        SELECT p.bank_account_id, n.number, p.check_date, p.amount_minor, p.currency FROM check_number n
                        JOIN payment p ON p.id = n.live_payment_id
                        WHERE p.state = 'OUTSTANDING' AND p.check_date <= :until ORDER BY n.series_id, n.number
                        """)
                .param("until", until)
                .query((r, n) -> new Open(
                        new BankAccountId(r.getLong("bank_account_id")),
                        r.getLong("number"),
                        r.getObject("check_date", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .list()
                .stream()
                .filter(check -> !LOST_IN_THE_SPRING.contains(check.number()))
                .forEach(check -> paid.get(check.account())
                        .add(new DemoBank.Moved(
                                check.date().plusDays(3 + random.nextInt(9)),
                                String.valueOf(check.number()),
                                check.amount().negated(),
                                "Check paid")));
        Actor by = stage.cast().on(month.atEndOfMonth(), "tomas");
        paid.forEach((account, moved) -> bank.tell(by, account, month, month.atEndOfMonth(), moved));
    }

    // ------------------------------------------------------------------ today

    private void today(DemoCompany.Stage stage) {
        together.executeWithoutResult(status -> openInvoices(stage));
        together.executeWithoutResult(status -> oddities(stage));
        Actor clerk = stage.cast().on(TODAY, "ines");
        movements.bringIn(
                clerk, stage.operations(), LocalDate.of(2026, 11, 10), "Card takings, ticket hall", "48210.55");
        movements.bringIn(clerk, stage.operations(), LocalDate.of(2026, 11, 11), "Bank charges", "-86.40");
        DueQuestion weekly = DueQuestion.of(stage.operations().value(), "friday", "next friday", "in 2 weeks");
        criteria.save(clerk, "Weekly run, less credits", true, weekly.paying(true, null, null));
        criteria.save(
                clerk,
                "What the cash allows",
                false,
                weekly.paying(true, DueQuestion.AVAILABLE, CashWay.MOST_DISCOUNT));
        groupOf(stage, "Chandlery", "Ropes and paint, week 46", "tomas");
        asking.tell(stage, groupOf(stage, "Crew services", "Crew services, November", "tomas"), accounting(stage));
        elsewhere.tell(stage);
        BatchId ready = groupOf(stage, "Harbour dues", "Harbour dues, November", "ines");
        approve(stage, ready, TODAY, "ines");
        electronic.tell(stage);
        direct.tell(stage);
        bank.practise(stage.cast().on(TODAY, "joss"), stage.operations());
        bank.ask(stage.cast().on(TODAY, "ines"), stage.operations(), LocalDate.of(2026, 11, 11));
    }

    /** Three invoices just under the limit of a payment, which together pass it. */
    private BatchId accounting(DemoCompany.Stage stage) {
        return java.util.Objects.requireNonNull(make(
                stage,
                stage.operations(),
                NEXT_RUN,
                NEXT_RUN.plusDays(14),
                "Accounting, October",
                stage.vendors().get("Sextant Accounting"),
                "ines"));
    }

    private BatchId groupOf(DemoCompany.Stage stage, String group, String name, String clerk) {
        DueQuestion question = DueQuestion.of(
                        stage.operations().value(),
                        NEXT_RUN.toString(),
                        NEXT_RUN.plusDays(7).toString(),
                        NEXT_RUN.plusDays(14).toString())
                .toGroup(group);
        return java.util.Objects.requireNonNull(makeOf(stage, question, NEXT_RUN, name, clerk));
    }

    /** About 350 invoices of the last six weeks, besides what history left open. */
    private void openInvoices(DemoCompany.Stage stage) {
        LocalDate from = LocalDate.of(2026, 10, 9);
        for (DemoVendors.Seed seed : DemoVendors.ALL) {
            int count = seed.name().equals(DemoVendors.OVERFLOW) ? 45 : 3 + random.nextInt(6);
            if (DemoVendors.NEVER_PAID.contains(seed.name()) || seed.name().equals(DemoVendors.CREDITS)) {
                count = 1;
            }
            for (int i = 0; i < count; i++) {
                LocalDate date = from.plusDays(random.nextInt(33));
                if (seed.terms().days() == 15) {
                    date = LocalDate.of(2026, 10, 29).plusDays(random.nextInt(13));
                }
                // together they come to what a run usually pays, so that what stands out is what should
                long minor = Math.max(1_200, amount(seed) * RUNS_OPEN / Math.max(RUNS_OPEN, count));
                long freight = i % 5 == 4 && seed.terms().discountRate().signum() > 0 ? Math.min(5_000, minor / 4) : 0;
                enter(stage, seed, date, minor, reference(seed), InvoiceKind.INVOICE, freight);
            }
        }
    }

    /** One case of everything that needs a second look. */
    private void oddities(DemoCompany.Stage stage) {
        DemoVendors.Seed fathom = seed("Fathom Survey Partners");
        enter(stage, fathom, LocalDate.of(2026, 11, 3), 125_000, "FS-5133", InvoiceKind.INVOICE, 0);
        DemoVendors.Seed rope = seed(DemoVendors.SUSPICIOUS);
        enter(stage, rope, LocalDate.of(2026, 10, 14), 139_260, "GRW 2217");
        enter(stage, rope, LocalDate.of(2026, 10, 16), 139_260, "GRW 2271");
        DemoVendors.Seed crane = seed(DemoVendors.HELD);
        enter(stage, crane, LocalDate.of(2026, 10, 12), 184_000, "LCH-0919");
        vendors.hold(
                stage.cast().on(TODAY, "tomas"), stage.vendors().get(crane.name()), "dispute over the August lift");
        InvoiceId uniforms = enter(stage, seed("Kittiwake Uniforms"), LocalDate.of(2026, 10, 4), 38_250, "KU/2093");
        holds.hold(stage.cast().on(TODAY, "ines"), uniforms, "wrong sizes");
        DemoVendors.Seed waste = seed(DemoVendors.CREDITS);
        enter(stage, waste, LocalDate.of(2026, 11, 2), 92_000, "W-CR-18", InvoiceKind.CREDIT, 0);
        enter(stage, seed("Bollard Foundry"), LocalDate.of(2026, 10, 28), 31_500, "BF-CR-7", InvoiceKind.CREDIT, 0);
        enter(
                stage,
                seed("Guillemot Engine Parts"),
                LocalDate.of(2026, 11, 4),
                48_000,
                "GEP-CR-2",
                InvoiceKind.CREDIT,
                0);
        // credits that cover every invoice of their vendor: an offset is proposed
        enter(stage, seed("Seapink Florists"), LocalDate.of(2026, 10, 30), 98_000, "SF-CR-3", InvoiceKind.CREDIT, 0);
        ownCheckAndLaterCredit(stage);
        DemoVendors.Seed survey = seed("Sextant Accounting");
        enter(stage, survey, LocalDate.of(2026, 10, 21), 960_000, "SA-401");
        enter(stage, survey, LocalDate.of(2026, 10, 22), 972_500, "SA-402");
        enter(stage, survey, LocalDate.of(2026, 10, 23), 955_000, "SA-403");
        // far above what this vendor usually bills
        enter(stage, seed("Merganser Medical"), LocalDate.of(2026, 10, 29), 1_140_000, "MM-AED-6");
    }

    /** An invoice that must be paid by itself, and a credit that cannot be used before the end of the month. */
    private void ownCheckAndLaterCredit(DemoCompany.Stage stage) {
        LocalDate date = LocalDate.of(2026, 10, 19);
        Currency usd = DemoCompany.USD;
        AccountId office = stage.expenses().get("Office");
        VendorId brokers = stage.vendors().get("Anchor & Thistle Insurance Brokers");
        var premium = List.of(new NewInvoice.Line(office, Money.ofMinor(712_040, usd)));
        entering.enter(
                stage.cast().on(date, "ines"),
                new NewInvoice(
                        InvoiceKind.INVOICE,
                        brokers,
                        "ATI-HULL-26",
                        date,
                        date,
                        stage.payables(),
                        Money.zero(usd),
                        true,
                        null,
                        null,
                        null,
                        premium));
        VendorId tickets = stage.vendors().get("Skua Ticket Systems");
        var rebate = List.of(new NewInvoice.Line(office, Money.ofMinor(64_000, usd)));
        entering.enter(
                stage.cast().on(date, "ines"),
                new NewInvoice(
                        InvoiceKind.CREDIT,
                        tickets,
                        "STS-CR-26",
                        date,
                        date,
                        stage.payables(),
                        Money.zero(usd),
                        false,
                        LocalDate.of(2026, 11, 30),
                        null,
                        null,
                        rebate));
    }

    private static DemoVendors.Seed seed(String name) {
        return java.util.Objects.requireNonNull(DemoVendors.named(name));
    }
}
