package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import leveltally.core.DateStyle;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.company.Company;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountList;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.HolidayList;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.TaxNumber;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.bankfiles.PositivePay;
import leveltally.server.checks.SeriesCorrections;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.company.Companies;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccountChanges;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.ledger.Periods;
import leveltally.server.people.People;
import leveltally.server.people.PersonChanges;
import leveltally.server.people.Staff;
import leveltally.server.proof.Proof;
import leveltally.server.setup.AccountClosing;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.VendorMerging;
import leveltally.server.vendors.VendorRecords;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A company of one's own, from an empty database; and what is refused on the way. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SettingUpTest {
    private static final Currency USD = Currency.getInstance("USD");
    private static final String PASSWORD = "an-oar-and-a-half-moon";

    private ConfigurableApplicationContext running;
    private Actor joss;
    private Actor second;
    private Actor ruth;
    private Actor ines;
    private int serial;

    @BeforeAll
    void anEmptyDatabase() {
        App.DATABASE.make("own");
        running = App.launch(App.DATABASE.url("own"), "--leveltally.demo=false");
        second = person("second", Role.ADMINISTRATOR);
        joss = person("joss", Role.ADMINISTRATOR);
        ruth = person("ruth", Role.CONTROLLER);
        ines = person("ines", Role.CLERK);
        YearMonth month = YearMonth.from(joss.today());
        bean(Periods.class).open(joss, month);
        bean(Periods.class).open(joss, month.plusMonths(1));
    }

    @AfterAll
    void stop() {
        running.close();
    }

    private <T> T bean(Class<T> type) {
        return running.getBean(type);
    }

    /** Whoever lets money out gets the role from two. */
    private Actor person(String name, Role role) {
        PersonId id = role == Role.ADMINISTRATOR
                ? bean(People.class).add(name, name, name + "@example.org", PASSWORD, Set.of(role), false)
                : bean(Staff.class).add(joss, name, name, name + "@example.org", PASSWORD, Set.of(role));
        bean(JdbcClient.class)
                .sql("SELECT id FROM person_change WHERE state = 'PROPOSED'")
                .query(Long.class)
                .list()
                .forEach(change -> bean(PersonChanges.class).confirm(second, change));
        return new Actor(id, name, Set.of(role), LocalDate.now(), Instant.now(), "test");
    }

    private AccountId account(String name, AccountKind kind) {
        serial++;
        return bean(Accounts.class).add(joss, new AccountFacts("9" + serial, name, kind));
    }

    private BankAccountId bank(String name) {
        return bean(BankAccountSetup.class)
                .open(
                        joss,
                        new NewBankAccount(
                                name,
                                "Skerrow Trust",
                                USD,
                                new RoutingNumber("990044105"),
                                "004417720931",
                                account("Cash " + name, AccountKind.CASH)));
    }

    private SeriesId series(BankAccountId account, String name, String prefix, long first) {
        return bean(SeriesSetup.class)
                .add(
                        joss,
                        account,
                        name,
                        new SeriesSetup.Wanted(
                                new NumberRange(prefix, first, null), Stock.BLANK, "C########C|KC", "dollars", ""));
    }

    private long version(BankAccountId id) {
        return bean(BankAccounts.class).version(id);
    }

    @Test
    void aMonthIsOpenedOnceWhoeverIsQuicker() throws Exception {
        Periods periods = bean(Periods.class);
        YearMonth next = periods.opened().next(YearMonth.from(joss.today()));
        CountDownLatch together = new CountDownLatch(4);
        var four = Executors.newFixedThreadPool(4);
        List<Callable<String>> tries = IntStream.range(0, 4)
                .mapToObj(n -> (Callable<String>) () -> {
                    together.countDown();
                    together.await();
                    try {
                        periods.open(n % 2 == 0 ? joss : ruth, next);
                        return "opened";
                    } catch (Refusal second) {
                        return second.code();
                    }
                })
                .toList();
        var said = four.invokeAll(tries);
        four.shutdown();
        assertThat(said.stream().map(one -> {
                    try {
                        return one.get();
                    } catch (Exception broken) {
                        throw new IllegalStateException(broken);
                    }
                }))
                .containsExactlyInAnyOrder("opened", "month-opened", "month-opened", "month-opened");
        assertThatThrownBy(() -> periods.open(ines, next.plusMonths(1))).hasMessageContaining("open a period");
        assertThatThrownBy(() -> periods.open(joss, next.plusMonths(2))).hasMessageContaining("without a gap");
    }

    @Test
    void anAccountIsClosedOnlyWhenNothingIsWrittenToItAnyMore() {
        Accounts accounts = bean(Accounts.class);
        AccountRoles roles = bean(AccountRoles.class);
        AccountId payables = account("Payables", AccountKind.PAYABLES);
        AccountId fuel = account("Fuel", AccountKind.EXPENSE);
        assertThatThrownBy(() -> roles.give(joss, AccountRole.PAYABLES, USD, fuel))
                .hasMessageContaining("is of the kind expense")
                .hasMessageContaining("of the kind payables");
        assertThatThrownBy(() -> roles.give(joss, AccountRole.PAYABLES, null, payables))
                .hasMessageContaining("for which currency");
        roles.give(joss, AccountRole.PAYABLES, USD, payables);
        assertThat(roles.of(AccountRole.PAYABLES, USD)).isEqualTo(payables);
        assertThatThrownBy(() -> roles.of(AccountRole.PAYABLES, Currency.getInstance("EUR")))
                .hasMessageContaining("no account for Payables in EUR");
        assertThatThrownBy(() -> accounts.change(joss, payables, "Payables", joss.today(), 0))
                .hasMessageContaining("it is the account for Payables USD");
        accounts.change(joss, fuel, "Bunker fuel", joss.today().plusDays(1), 0);
        assertThatThrownBy(() -> accounts.change(ruth, fuel, "Fuel", null, 0))
                .hasMessageContaining("changed this account meanwhile");
        assertThatCode(() -> accounts.mustTake(List.of(fuel), joss.today())).doesNotThrowAnyException();
        assertThatThrownBy(() -> accounts.mustTake(List.of(fuel), joss.today().plusDays(1)))
                .hasMessageContaining("Bunker fuel is closed from");
        assertThatThrownBy(() -> accounts.add(joss, new AccountFacts("9" + serial, "Again", AccountKind.EXPENSE)))
                .hasMessageContaining("already");
        // what the services say, the database holds
        JdbcClient jdbc = bean(JdbcClient.class);
        bean(TransactionTemplate.class).executeWithoutResult(status -> {
            status.setRollbackOnly();
            LocalDate later = joss.today().plusDays(1);
            jdbc.sql("INSERT INTO journal_line VALUES (880, 88, ?, 'USD', 100, 0), (881, 88, ?, 'USD', 0, 100)")
                    .params(fuel.value(), payables.value())
                    .update();
            assertThatThrownBy(() -> jdbc.sql("INSERT INTO journal_entry (id, ledger_date, month, kind, text, made_at,"
                                    + " made_by) VALUES (88, ?, ?, 'INVOICE', 'x', NOW(), ?)")
                            .params(
                                    later,
                                    YearMonth.from(later).toString(),
                                    joss.person().value())
                            .update())
                    .hasMessageContaining("closed from that day");
        });
    }

    @Test
    void aListOfAccountsIsTriedFirstAndItsGoodRowsAreBroughtIn() {
        Accounts accounts = bean(Accounts.class);
        List<AccountList.Row> rows = List.of(
                new AccountList.Row(1, "L100", "Galley", "expense"), new AccountList.Row(2, "L200", "Harbour", "dues"));
        assertThat(accounts.tried(rows))
                .extracting(AccountList.Decision::outcome)
                .containsExactly(AccountList.Outcome.NEW, AccountList.Outcome.REFUSED);
        assertThat(accounts.names()).doesNotContainValue("L100 Galley");
        accounts.bringIn(joss, rows);
        assertThat(accounts.names()).containsValue("L100 Galley").doesNotContainValue("L200 Harbour");
        assertThat(accounts.bringIn(joss, List.of(new AccountList.Row(1, "l100", "Galley and mess", "Expense"))))
                .extracting(AccountList.Decision::why)
                .containsExactly("was Galley");
        assertThat(accounts.names()).containsValue("L100 Galley and mess");
    }

    @Test
    void seriesOfOneAccountLieApartAndAWayHasANameOfItsOwn() {
        BankAccountId account = bank("Series");
        series(account, "Checks", "", 41200);
        assertThatThrownBy(() -> series(account, "More checks", "", 100)).hasMessageContaining("from 41200 on");
        assertThatThrownBy(() -> series(account, "checks", "B", 100)).hasMessageContaining("a name of its own");
        series(account, "More checks", "B", 100);
        assertThat(bean(BankAccounts.class).get(account).ways()).hasSize(2);
        assertThatThrownBy(() -> bean(SeriesSetup.class)
                        .add(
                                joss,
                                account,
                                "Third",
                                new SeriesSetup.Wanted(
                                        new NumberRange("C", 1, null), Stock.BLANK, "no pattern", "dollars", "")))
                .hasMessageContaining("MICR line");
        assertThatThrownBy(() -> bean(BankAccountSetup.class)
                        .open(
                                ruth,
                                new NewBankAccount(
                                        "x", "y", USD, new RoutingNumber("990044105"), "1234", new AccountId(1))))
                .hasMessageContaining("needs the role administrator");
        assertThatThrownBy(() -> bank("Series")).hasMessageContaining("Another bank account is called Series");
    }

    @Test
    void aNextNumberIsPassedOnByTwoAndLeavesNoGap() {
        BankAccountId account = bank("Numbers");
        SeriesId id = series(account, "Checks", "", 500);
        SeriesCorrections corrections = bean(SeriesCorrections.class);
        assertThatThrownBy(() -> corrections.propose(ruth, id, 500, "x")).hasMessageContaining("already");
        assertThatThrownBy(() -> corrections.propose(ruth, id, 499, "x")).hasMessageContaining("cannot be 499");
        corrections.propose(ruth, id, 503, "three sheets fell into the harbour");
        assertThatThrownBy(() -> corrections.propose(joss, id, 504, "another")).hasMessageContaining("waits");
        assertThatThrownBy(() -> corrections.confirm(ruth, id)).hasMessageContaining("somebody else");
        corrections.confirm(joss, id);
        assertThat(bean(JdbcClient.class)
                        .sql("SELECT number FROM check_register WHERE series_id = ? AND state = 'UNACCOUNTED'")
                        .param(id.value())
                        .query(Long.class)
                        .list())
                .containsExactly(500L, 501L, 502L);
        assertThat(bean(JdbcClient.class)
                        .sql("SELECT next_number FROM number_series WHERE id = ?")
                        .param(id.value())
                        .query(Long.class)
                        .single())
                .isEqualTo(503);
        assertThatThrownBy(() -> corrections.confirm(joss, id)).hasMessageContaining("No correction");
        corrections.propose(ruth, id, 600, "a box is missing");
        corrections.refuse(joss, id);
        assertThat(corrections.waiting(id)).isEmpty();
    }

    @Test
    void anAccountInUseIsNotClosedAndAClosedOnePaysNothing() {
        BankAccountId account = bank("Closing");
        BankAccountSetup setup = bean(BankAccountSetup.class);
        BankAccountChanges changes = bean(BankAccountChanges.class);
        BankHolidays holidays = bean(BankHolidays.class);
        long layout = bean(PositivePay.class).layouts().get(0).id();
        bean(PositivePay.class).begin(joss, account, layout);
        assertThat(bean(BankAccounts.class).get(account).positivePay()).isTrue();
        bean(PositivePay.class).end(joss, account);
        assertThat(bean(BankAccounts.class).get(account).layout()).isNull();
        holidays.add(joss, account, HolidayList.read(joss.today() + " Closing day"));
        assertThat(holidays.from(account, joss.today()))
                .containsExactly(new BankHolidays.Holiday(joss.today(), "Closing day"));
        holidays.remove(joss, account, joss.today());
        assertThatThrownBy(() -> holidays.remove(joss, account, joss.today())).hasMessageContaining("not on the list");
        changes.change(
                joss,
                account,
                new BankAccountChanges.Wanted("Closing", "Skerrow Trust", "1,000.00", "5", null, null),
                version(account));
        assertThat(bean(BankAccounts.class).get(account).smallest()).isEqualTo(Money.parse("5.00", USD));
        assertThatThrownBy(() -> changes.change(
                        joss,
                        account,
                        new BankAccountChanges.Wanted("Closing", "Skerrow Trust", "-1", "5", null, null),
                        version(account)))
                .hasMessageContaining("cannot be below zero");
        assertThatThrownBy(() -> changes.change(
                        joss, account, new BankAccountChanges.Wanted("Closing", "Bank", "0", "0", null, null), 0))
                .hasMessageContaining("meanwhile");
        assertThatThrownBy(() -> bean(AccountClosing.class).close(joss, account, " "))
                .hasMessageContaining("Say why");
        bean(AccountClosing.class).close(joss, account, "moved to another bank");
        assertThatThrownBy(() -> bean(BankAccounts.class).get(account).mustBeOpen())
                .hasMessageContaining("was closed on");
        assertThatThrownBy(() -> setup.addWay(
                        joss,
                        account,
                        new BankAccountSetup.WantedWay("Transfers", PaymentMethod.CREDIT_TRANSFER, false)))
                .hasMessageContaining("was closed on");
    }

    @Test
    void theWayFromNothingToTheFirstInvoiceSaysWhatIsMissing() {
        Http http = Http.signedIn(App.address(running), "joss", PASSWORD);
        JsonMapper json = new JsonMapper();
        JsonNode before = json.readTree(http.get("/api/setup").body());
        assertThat(before.get("ready").asBoolean()).isFalse();
        assertThat(step(before, "COMPANY").get("missing").asString()).contains("address");
        assertThat(step(before, "PEOPLE").get("missing").asString()).isEqualTo("Nobody is approver.");
        assertThat(step(before, "ROUTES").get("optional").asBoolean()).isTrue();
        assertThat(step(before, "VENDORS").get("mine").asBoolean()).isFalse();

        bean(Companies.class).set(joss, new Company("Own Company", List.of("1 Quay"), 0, 180), Companies.NOT_YET);
        person("maren", Role.APPROVER);
        AccountId payables = account("Payables all", AccountKind.PAYABLES);
        AccountId expense = account("Chandlery", AccountKind.EXPENSE);
        bean(AccountRoles.class).give(joss, AccountRole.PAYABLES, USD, payables);
        series(bank("Main"), "Checks", "", 1);
        VendorRecords records = bean(VendorRecords.class);
        VendorFacts facts = new VendorFacts(
                "Oakum & Pitch Chandlery",
                "",
                5,
                PaymentMethod.CHECK,
                Terms.net(30),
                new Paperwork(Advice.MAIL, "desk@oakum.example", Delivery.COURIER, DateStyle.ISO),
                Reportable.SERVICES);
        RemitTo remitTo = new RemitTo("Oakum & Pitch Chandlery", List.of("2 Slipway Road", "Skerrow 41002"));
        VendorId vendor = records.enter(
                ines,
                new VendorRecords.New("", facts, USD, false, new TaxNumber("12-3456789"), remitTo, "41002", null));
        assertThat(records.kept(vendor).taxNumber()).isEqualTo("…6789");
        assertThat(bean(JdbcClient.class)
                        .sql("SELECT tax_number_sealed FROM vendor WHERE id = ?")
                        .param(vendor.value())
                        .query(String.class)
                        .single())
                .doesNotContain("123456789");
        assertThatThrownBy(() ->
                        records.enter(ines, new VendorRecords.New("", facts, USD, false, null, remitTo, "41002", null)))
                .hasMessageContaining("is called so already");
        assertThatThrownBy(() -> records.enter(
                        ines,
                        new VendorRecords.New(
                                "",
                                new VendorFacts(
                                        "Île",
                                        "",
                                        5,
                                        PaymentMethod.CHECK,
                                        Terms.net(30),
                                        Paperwork.USUAL,
                                        Reportable.NO),
                                Currency.getInstance("EUR"),
                                false,
                                null,
                                remitTo,
                                "",
                                null)))
                .hasMessageContaining("None of our bank accounts pays in EUR");
        records.change(
                ines,
                vendor,
                new VendorFacts(
                        facts.name(),
                        "Chandlery",
                        2,
                        PaymentMethod.CHECK,
                        Terms.net(10),
                        Paperwork.USUAL,
                        Reportable.SERVICES),
                null,
                records.kept(vendor).version());
        assertThat(records.kept(vendor).taxNumber()).isEqualTo("…6789");
        assertThatThrownBy(() -> records.change(ines, vendor, facts, "", 0)).hasMessageContaining("meanwhile");
        assertThat(step(json.readTree(http.get("/api/setup").body()), "VENDORS")
                        .get("missing")
                        .asString())
                .isEqualTo("The address of 1 vendor waits for a second person, a controller.");
        bean(VendorChanges.class)
                .confirmAll(
                        ruth,
                        bean(JdbcClient.class)
                                .sql("SELECT id FROM vendor_change WHERE state = 'PROPOSED'")
                                .query(Long.class)
                                .list());
        InvoiceId invoice = bean(Entering.class)
                .enter(
                        ines,
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                vendor,
                                "A-1",
                                joss.today(),
                                joss.today(),
                                bean(AccountRoles.class).of(AccountRole.PAYABLES, USD),
                                Money.zero(USD),
                                List.of(new NewInvoice.Line(expense, Money.parse("120.00", USD)))));
        assertThat(invoice).isNotNull();
        JsonNode after = json.readTree(http.get("/api/setup").body());
        assertThat(after.get("ready").asBoolean()).as(after.toString()).isTrue();
    }

    private VendorId vendor(String name, String currency, String line) {
        return bean(VendorRecords.class)
                .enter(
                        ines,
                        new VendorRecords.New(
                                "",
                                new VendorFacts(
                                        name,
                                        "",
                                        5,
                                        PaymentMethod.CHECK,
                                        Terms.net(30),
                                        Paperwork.USUAL,
                                        Reportable.NO),
                                Currency.getInstance(currency),
                                false,
                                null,
                                new RemitTo("Oakum & Pitch", List.of(line)),
                                "",
                                null));
    }

    private void confirmAll() {
        bean(VendorChanges.class)
                .confirmAll(
                        ruth,
                        bean(JdbcClient.class)
                                .sql("SELECT id FROM vendor_change WHERE state = 'PROPOSED'")
                                .query(Long.class)
                                .list());
    }

    private InvoiceId invoice(VendorId vendor, String reference) {
        return bean(Entering.class)
                .enter(
                        ines,
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                vendor,
                                reference,
                                joss.today(),
                                joss.today(),
                                bean(AccountRoles.class)
                                        .find(AccountRole.PAYABLES, USD)
                                        .orElseGet(() -> {
                                            AccountId payables = account("Payables merged", AccountKind.PAYABLES);
                                            bean(AccountRoles.class).give(joss, AccountRole.PAYABLES, USD, payables);
                                            return payables;
                                        }),
                                Money.zero(USD),
                                List.of(new NewInvoice.Line(
                                        account("Expense", AccountKind.EXPENSE), Money.parse("120.00", USD)))));
    }

    /** At one instant a document comes for a vendor that becomes another: it comes along, or it is refused by name. */
    @RepeatedTest(4)
    void aDocumentAgainstAMerge(RepetitionInfo time) throws Exception {
        if (time.getCurrentRepetition() == 1) {
            bank("Merging at once");
        }
        String name = "Race " + time.getCurrentRepetition();
        VendorId kept = vendor(name + " stays", "USD", "1 Race Road");
        VendorId gone = vendor(name + " goes", "USD", "1 Race Road");
        confirmAll();
        invoice(kept, "WARM-" + time.getCurrentRepetition());
        ExecutorService two = Executors.newFixedThreadPool(2);
        CyclicBarrier start = new CyclicBarrier(2);
        Future<?> merge = two.submit(() -> {
            start.await();
            bean(VendorMerging.class).merge(ruth, gone, kept, "one letterhead");
            return null;
        });
        Future<InvoiceId> entered = two.submit(() -> {
            start.await();
            return invoice(gone, "RACE-" + time.getCurrentRepetition());
        });
        merge.get();
        try {
            InvoiceId invoice = entered.get();
            assertThat(bean(JdbcClient.class)
                            .sql("SELECT vendor_id FROM invoice WHERE id = ?")
                            .param(invoice.value())
                            .query(Long.class)
                            .single())
                    .isEqualTo(kept.value());
        } catch (ExecutionException refused) {
            assertThat(refused.getCause()).hasMessageContaining("became");
        }
        two.shutdown();
        assertThat(bean(JdbcClient.class)
                        .sql("SELECT COUNT(*) FROM invoice WHERE vendor_id = ?")
                        .param(gone.value())
                        .query(Long.class)
                        .single())
                .isZero();
    }

    @Test
    void twoVendorsThatAreOneBecomeOneAndTheirAddressesWaitForASecondPerson() {
        bank("Merging");
        VendorMerging merging = bean(VendorMerging.class);
        VendorId kept = vendor("Oakum & Pitch", "USD", "2 Slipway Road");
        VendorId gone = vendor("Oakum and Pitch", "USD", "2 Slipway Road");
        VendorId elsewhere = vendor("Oakum & Pitch Ltd", "USD", "9 Other Road");
        assertThatThrownBy(() -> merging.merge(ruth, gone, kept, "one letterhead"))
                .hasMessageContaining("waits for a second person");
        confirmAll();
        InvoiceId clash = invoice(gone, "SAME-1");
        invoice(kept, "SAME-1");
        assertThatThrownBy(() -> merging.merge(ruth, gone, gone, "x")).hasMessageContaining("is itself already");
        assertThatThrownBy(() -> merging.merge(ruth, gone, kept, " ")).hasMessageContaining("Say how you know");
        assertThatThrownBy(() -> merging.merge(ines, gone, kept, "x")).hasMessageContaining("make one vendor of two");
        assertThatThrownBy(() -> merging.merge(ruth, gone, kept, "x"))
                .hasMessageContaining("Both have a document with the reference SAME-1");
        JdbcClient jdbc = bean(JdbcClient.class);
        // as the application's account nobody moves a document
        assertThatThrownBy(() -> jdbc.sql("UPDATE invoice SET vendor_id = ? WHERE id = ?")
                        .params(kept.value(), clash.value())
                        .update())
                .rootCause()
                .hasMessageContaining("denied");
        InvoiceId far = invoice(elsewhere, "FAR-1");
        merging.merge(ruth, elsewhere, kept, "their letter of last week");
        assertThat(jdbc.sql("SELECT vendor_id FROM invoice WHERE id = ?")
                        .param(far.value())
                        .query(Long.class)
                        .single())
                .isEqualTo(kept.value());
        // its address came along and waits; until then nothing is paid there
        assertThat(jdbc.sql("SELECT COUNT(*) FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'")
                        .param(kept.value())
                        .query(Long.class)
                        .single())
                .isEqualTo(1);
        assertThatThrownBy(() -> invoice(elsewhere, "FAR-2")).hasMessageContaining("became Oakum & Pitch");
        assertThatThrownBy(() -> merging.merge(ruth, elsewhere, gone, "x")).hasMessageContaining("already");
        // one that was entered at the same moment is not taken behind the services either
        String columns = jdbc.sql("SELECT GROUP_CONCAT(column_name) FROM information_schema.columns WHERE"
                        + " table_schema = DATABASE() AND table_name = 'invoice' AND is_generated = 'NEVER'"
                        + " AND column_name NOT IN ('id', 'vendor_id', 'reference')")
                .query(String.class)
                .single();
        assertThatThrownBy(() -> jdbc.sql("INSERT INTO invoice (id, vendor_id, reference, " + columns
                                + ") SELECT 999999, ?, 'LATE-1', " + columns + " FROM invoice WHERE id = ?")
                        .params(elsewhere.value(), far.value())
                        .update())
                .rootCause()
                .hasMessageContaining("became another");
        assertThatThrownBy(() -> jdbc.sql("UPDATE vendor SET merged_into_id = NULL WHERE id = ?")
                        .param(elsewhere.value())
                        .update())
                .rootCause()
                .hasMessageContaining("stays it");
        Actor second = new Actor(joss.person(), "joss", Set.of(Role.CONTROLLER), joss.today(), Instant.now(), "test");
        long waiting = jdbc.sql("SELECT id FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'")
                .param(kept.value())
                .query(Long.class)
                .single();
        assertThatThrownBy(() -> bean(VendorChanges.class).confirm(ruth, waiting, null))
                .hasMessageContaining("somebody else must confirm");
        bean(VendorChanges.class).confirm(second, waiting, null);
        assertThat(jdbc.sql("SELECT r.in_force FROM invoice i JOIN remit_to r ON r.id = i.remit_to_id WHERE i.id = ?")
                        .param(far.value())
                        .query(Boolean.class)
                        .single())
                .isTrue();
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).as(law.looked()).isEmpty());
    }

    private static JsonNode step(JsonNode setup, String name) {
        for (JsonNode step : setup.get("steps")) {
            if (step.get("step").asString().equals(name)) {
                return step;
            }
        }
        throw new AssertionError("no step " + name);
    }
}
