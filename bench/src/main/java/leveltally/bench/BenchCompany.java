package leveltally.bench;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.Currency;
import java.util.Set;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.server.LevelTally;
import leveltally.server.checks.SeriesSetup;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.people.People;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** The application with two people and one bank account, whose checks have numbers and MICR lines of ours. */
record BenchCompany(ConfigurableApplicationContext context, Actor clerk, Actor approver, BankAccountId account) {
    static final String PASSWORD = "only-for-the-bench";

    static ConfigurableApplicationContext launch(String database) {
        return SpringApplication.run(
                LevelTally.class,
                "--spring.datasource.url=" + database,
                "--spring.datasource.password=" + PASSWORD,
                "--spring.flyway.password=" + PASSWORD,
                "--leveltally.seal-key=a-key-only-for-the-bench",
                "--leveltally.demo=false",
                "--server.port=0");
    }

    /** What is measured in a company: by the database's root, and by the application's account without the application. */
    interface Measured {
        void in(BenchCompany company, Connection root, Connection bare) throws Exception;
    }

    /** Launches the application over an empty database, with a company in it, for as long as something is measured. */
    static void measured(String database, Measured measured) throws Exception {
        ConfigurableApplicationContext context = launch(database);
        try (Connection root = DriverManager.getConnection(database + "?useBulkStmts=true", "root", "");
                Connection bare = DriverManager.getConnection(database, "leveltally_app", PASSWORD)) {
            new Loader(root).company();
            root.commit();
            root.setAutoCommit(true);
            measured.in(in(context, root), root, bare);
        } finally {
            context.close();
        }
    }

    static BenchCompany in(ConfigurableApplicationContext context, Connection root) throws SQLException {
        var together = new TransactionTemplate(context.getBean(PlatformTransactionManager.class));
        Actor clerk = together.execute(status -> person(context, "clerk"));
        Actor approver = approver(root, together.execute(status -> person(context, "approver")));
        var administrator = new Actor(
                clerk.person(), clerk.name(), Set.of(Role.ADMINISTRATOR), clerk.today(), clerk.now(), "bench");
        BankAccountId account = context.getBean(BankAccountSetup.class)
                .open(
                        administrator,
                        new NewBankAccount(
                                "Operations",
                                "Skerrow Trust",
                                Currency.getInstance("USD"),
                                new RoutingNumber("990044105"),
                                "004417720931",
                                new AccountId(1)));
        context.getBean(SeriesSetup.class)
                .add(
                        administrator,
                        account,
                        "Checks",
                        new SeriesSetup.Wanted(
                                new NumberRange("", 1, null), Stock.BLANK, "C########C|KC", "dollars", ""));
        return new BenchCompany(context, clerk, approver, account);
    }

    private static Actor person(ConfigurableApplicationContext context, String name) {
        PersonId id = context.getBean(People.class).add(name, name, "", PASSWORD, Set.of(Role.CLERK), false);
        return new Actor(id, name, Set.of(Role.CLERK), Loader.CHECK_DATE.minusDays(1), Instant.now(), "bench");
    }

    /** Such a role is given by two people; here the database's root gives it. */
    private static Actor approver(Connection root, Actor person) throws SQLException {
        try (Statement sql = root.createStatement()) {
            sql.execute("UPDATE person_role SET role = 'APPROVER' WHERE person_id = "
                    + person.person().value());
        }
        return new Actor(
                person.person(), person.name(), Set.of(Role.APPROVER), person.today(), Instant.now(), person.from());
    }
}
