package leveltally.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.printers.PrinterId;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.outside.OutsideRow;
import leveltally.server.printers.Printers;
import leveltally.server.printing.Answers;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.Printing;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.crypto.password.Pbkdf2PasswordEncoder;
import org.springframework.security.crypto.password.Pbkdf2PasswordEncoder.SecretKeyFactoryAlgorithm;

/** The application on a real MariaDB with the demo company, started once for all tests, and short ways to its deeds. */
public final class App {
    public static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    public static final LocalDate CHECK_DATE = LocalDate.of(2026, 11, 13);

    public static final TestDatabase DATABASE = TestDatabase.start();

    /** The demo as {@code ./test} had it made and kept once; without it the application makes the demo itself. */
    private static final Optional<Path> DEMO =
            Optional.ofNullable(System.getenv("LEVELTALLY_DEMO_COPY")).map(Path::of);

    private static final String SEAL = DEMO.map(TestDatabase::sealOf).orElse("a-key-only-for-tests");
    /** Where a test may start a printing system that the application then finds. */
    static final int PRINT_PORT = PrintSystem.freePort();

    /** Where files for banks are laid, and what the bank to practise on keeps. */
    public static final Path FOLDERS = folder("bank-folders");

    public static final Path PRACTICE_BANK = folder("practice-bank");

    public static final ConfigurableApplicationContext CONTEXT = launch();

    private static int serial = 1;

    private App() {}

    private static ConfigurableApplicationContext launch() {
        DEMO.ifPresent(copy -> DATABASE.fill("leveltally", copy));
        SpringApplication application = new SpringApplication(LevelTally.class);
        application.addInitializers(context -> context.getBeanFactory().addBeanPostProcessor(new Asked()));
        // a slow hash takes a second of the tests' processor each time; InstalledTest and SettingUpTest keep it
        application.addInitializers(context -> ((GenericApplicationContext) context)
                .registerBean(
                        "quickPasswords", PasswordEncoder.class, App::quickPasswords, bean -> bean.setPrimary(true)));
        return application.run(arguments(DATABASE.url(), SEAL, "--leveltally.demo=true"));
    }

    private static Path folder(String name) {
        try {
            return Files.createTempDirectory(name);
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
    }

    private static PasswordEncoder quickPasswords() {
        var quick = new Pbkdf2PasswordEncoder("", 16, 1_000, SecretKeyFactoryAlgorithm.PBKDF2WithHmacSHA256);
        return new DelegatingPasswordEncoder("pbkdf2", Map.of("pbkdf2", quick, "demo", quick));
    }

    /** One more application in this process, for what is configured otherwise. */
    static ConfigurableApplicationContext launch(String url, String... more) {
        return SpringApplication.run(LevelTally.class, arguments(url, SEAL, more));
    }

    /** The same on the data of such a copy as {@code ./start --backup} keeps. */
    static ConfigurableApplicationContext launchOnDemo(String url, Path copy) {
        return SpringApplication.run(
                LevelTally.class, arguments(url, TestDatabase.sealOf(copy), "--leveltally.demo=true"));
    }

    private static String[] arguments(String url, String seal, String... more) {
        return Stream.concat(
                        Stream.of(
                                "--spring.datasource.url=" + url,
                                "--spring.datasource.password=" + TestDatabase.PASSWORD,
                                "--spring.flyway.password=" + TestDatabase.PASSWORD,
                                "--leveltally.seal-key=" + seal,
                                // mail goes out when a test says so
                                "--leveltally.mail.every=PT1H",
                                // and so do files for banks
                                "--leveltally.exchange.every=PT1H",
                                "--leveltally.exchange.look-every=PT1H",
                                "--leveltally.bank-folders=" + FOLDERS,
                                "--leveltally.practice-bank=" + PRACTICE_BANK,
                                "--leveltally.print-system=127.0.0.1:" + PRINT_PORT,
                                "--server.port=0"),
                        Stream.of(more))
                .toArray(String[]::new);
    }

    public static <T> T bean(Class<T> type) {
        return CONTEXT.getBean(type);
    }

    public static String address() {
        return address(CONTEXT);
    }

    static String address(ConfigurableApplicationContext running) {
        int port = ((WebServerApplicationContext) running).getWebServer().getPort();
        return "http://127.0.0.1:" + port;
    }

    public static JdbcClient jdbc() {
        return bean(JdbcClient.class);
    }

    public static long number(String sql, Object... params) {
        return jdbc().sql(sql).params(params).query(Long.class).single();
    }

    /** Changes data behind the application's back. */
    public static void asRoot(String sql) {
        try (Connection root = DATABASE.root("leveltally")) {
            root.createStatement().executeUpdate(sql);
        } catch (SQLException broken) {
            throw new IllegalStateException(broken);
        }
    }

    public static Actor ines() {
        return actor("ines", Role.CLERK);
    }

    public static Actor tomas() {
        return actor("tomas", Role.CLERK);
    }

    public static Actor maren() {
        return actor("maren", Role.APPROVER);
    }

    public static Actor aldo() {
        return actor("aldo", Role.APPROVER);
    }

    public static Actor priya() {
        return actor("priya", Role.AUDITOR);
    }

    public static Actor ruth() {
        return actor("ruth", Role.CONTROLLER);
    }

    public static Actor actor(String signIn, Role role) {
        long id = number("SELECT id FROM person WHERE sign_in = ?", signIn);
        return new Actor(new PersonId(id), signIn, Set.of(role), TODAY, Instant.now(), "test");
    }

    public static BankAccountId operations() {
        return new BankAccountId(number("SELECT id FROM bank_account WHERE name = 'Operations'"));
    }

    public static VendorId vendor(String name) {
        return new VendorId(number("SELECT id FROM vendor WHERE name = ?", name));
    }

    /** A fresh open invoice in the currency of its vendor, due on the check date. */
    public static InvoiceId invoice(String vendor, String amount) {
        return invoice(vendor, amount, LocalDate.of(2026, 11, 2));
    }

    /** The same of another day. */
    public static InvoiceId invoice(String vendor, String amount, LocalDate dated) {
        return invoice(vendor, amount, dated, "T-" + serial++);
    }

    /** The same with a reference of its own. */
    public static InvoiceId invoice(String vendor, String amount, LocalDate dated, String reference) {
        AccountId payables = new AccountId(number("SELECT id FROM ledger_account WHERE code = '2000'"));
        AccountId expense = new AccountId(number("SELECT id FROM ledger_account WHERE code = '5200'"));
        String currency = jdbc().sql("SELECT currency FROM vendor WHERE name = ?")
                .param(vendor)
                .query(String.class)
                .single();
        Money money = Money.parse(amount, java.util.Currency.getInstance(currency));
        return bean(Entering.class)
                .enter(
                        ines(),
                        new NewInvoice(
                                InvoiceKind.INVOICE,
                                vendor(vendor),
                                reference,
                                dated,
                                dated,
                                payables,
                                Money.zero(money.currency()),
                                List.of(new NewInvoice.Line(expense, money))));
    }

    public static NewBatch of(List<InvoiceId> invoices) {
        DueQuestion question = DueQuestion.of(operations().value(), CHECK_DATE.toString(), "2000-01-01", null)
                .marked(
                        null,
                        invoices.stream().map(id -> String.valueOf(id.value())).collect(Collectors.joining(".")));
        return batch("Test batch", question);
    }

    /** A batch of what this question takes now. */
    public static NewBatch batch(String name, DueQuestion question) {
        var taken = bean(Due.class).select(question, TODAY);
        return new NewBatch(name, "", taken.taken().size(), taken.toPay().toString(), question, null);
    }

    /** A draft of exactly these invoices. */
    public static BatchId draft(InvoiceId... invoices) {
        return bean(Making.class).make(ines(), of(List.of(invoices)));
    }

    /** The only invoice of a batch. */
    public static InvoiceId invoiceOf(BatchId batch) {
        return bean(ClaimRows.class).of(batch).get(0).lines().get(0).item().orElseThrow();
    }

    public static long version(BatchId batch) {
        return bean(Batches.class).get(batch).version();
    }

    public static BatchId approved(InvoiceId... invoices) {
        BatchId batch = draft(invoices);
        bean(Sending.class).send(ines(), batch, version(batch));
        approve(batch);
        return batch;
    }

    /** Records payments made elsewhere, of one day, and takes them to the end of their route. */
    public static BatchId elsewhere(String way, OutsideRow... rows) {
        BatchId batch = bean(OutsidePayments.class)
                .record(
                        ines(),
                        new OutsidePayments.Recorded(
                                operations(),
                                new WayId(number("SELECT id FROM way_to_pay WHERE name = ?", way)),
                                "",
                                "",
                                List.of(rows)),
                        true)
                .get(0);
        approve(batch);
        return batch;
    }

    /** Takes a sent batch to the end of its route. */
    public static void approve(BatchId batch) {
        for (Actor approver : List.of(maren(), aldo(), ruth())) {
            if (bean(Batches.class).get(batch).state() == BatchState.IN_APPROVAL) {
                bean(Approvals.class)
                        .approve(approver, batch, bean(Approvals.class).seen(batch));
            }
        }
    }

    /** Takes the turn and numbers for a batch; nothing is handed to the printer yet. */
    public static long numbered(BatchId batch) {
        Turn turn = bean(Turns.class).take(ines(), operations(), batch, "");
        return bean(Numbering.class)
                .number(ines(), batch, turn.serial(), nextNumber(), "")
                .run();
    }

    /** The series that operations' checks are numbered in. */
    public static long series() {
        return number("SELECT id FROM series_of_account WHERE account_name = 'Operations' AND stock <> 'BY_HAND'");
    }

    public static long nextNumber() {
        return number(
                "SELECT next_number FROM series_of_account WHERE account_name = 'Operations' AND stock <> 'BY_HAND'");
    }

    /** The stand-in tray, which comes first. */
    public static PrinterId tray() {
        return bean(Printers.class).inUse().get(0).id();
    }

    public static void handOver(long run) {
        bean(Printing.class).send(ines(), run, tray());
    }

    public static List<Long> documents(long run) {
        return jdbc().sql("SELECT id FROM document WHERE run_id = ? ORDER BY position")
                .param(run)
                .query(Long.class)
                .list();
    }

    public static void answer(BatchId batch, List<Long> documents, Answer answer, String why) {
        bean(Answers.class)
                .answer(
                        ines(),
                        batch,
                        documents.stream().map(d -> new Said(d, answer, why)).toList());
    }

    /** A batch printed and answered good, ready to be posted. */
    public static BatchId printed(InvoiceId... invoices) {
        BatchId batch = approved(invoices);
        long run = numbered(batch);
        handOver(run);
        answer(batch, documents(run), Answer.GOOD, "");
        return batch;
    }

    /** The payment that a number carries, or was taken for. */
    public static PaymentId payment(CheckNumberId check) {
        return new PaymentId(number("SELECT payment_id FROM check_number WHERE id = ?", check.value()));
    }

    /** Voids a check and brings its invoices back. */
    public static void voidCheck(Actor by, CheckNumberId check, LocalDate on, String reason) {
        bean(Undoing.class).undo(by, Wanted.broughtBack(payment(check), on), reason);
    }
}
