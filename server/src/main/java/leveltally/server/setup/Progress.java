package leveltally.server.setup;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.PlannedRuns;
import leveltally.core.people.Role;
import leveltally.core.setup.Setup;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads how far a company is set up; two statements, whatever there is. */
@Component
class Progress {
    private final JdbcClient jdbc;

    Progress(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    List<Setup.Step> of(LocalDate today) {
        List<Setup.Person> people = jdbc
                .sql(
                        "SELECT r.person_id, r.role FROM person_role r JOIN person p ON p.id = r.person_id WHERE p.enabled")
                .query((r, n) -> Map.entry(r.getLong("person_id"), Role.valueOf(r.getString("role"))))
                .list()
                .stream()
                .collect(Collectors.groupingBy(
                        Map.Entry::getKey, Collectors.mapping(Map.Entry::getValue, Collectors.toSet())))
                .values()
                .stream()
                .map(Setup.Person::new)
                .toList();
        YearMonth month = YearMonth.from(today);
        YearMonth ofFirstRun = YearMonth.from(new PlannedRuns(null, null).checkDate(today));
        return Setup.of(jdbc.sql("""
                        SELECT EXISTS (SELECT 1 FROM company) AS company,
                          (SELECT COUNT(*) FROM ledger_account) AS accounts,
                          EXISTS (SELECT 1 FROM account_role WHERE role = :payables) AS payables,
                          (SELECT GROUP_CONCAT(DISTINCT b.currency ORDER BY b.currency) FROM bank_account b
                            LEFT JOIN account_role r ON r.role = :payables AND r.currency = b.currency
                            WHERE b.closed_on IS NULL AND r.role IS NULL) AS unpayable,
                          EXISTS (SELECT 1 FROM period WHERE month = :month AND NOT locked) AS month_open,
                          EXISTS (SELECT 1 FROM period WHERE month = :run AND NOT locked) AS run_open,
                          (SELECT COUNT(*) FROM bank_account WHERE closed_on IS NULL) AS bank_accounts,
                          (SELECT COUNT(DISTINCT w.bank_account_id) FROM way_to_pay w
                            JOIN bank_account b ON b.id = w.bank_account_id WHERE b.closed_on IS NULL) AS paying,
                          (SELECT COUNT(*) FROM person_change WHERE waiting_person_id IS NOT NULL) AS roles_waiting,
                          EXISTS (SELECT 1 FROM approval_policy WHERE in_force_from <= :today AND confirmed_on < :today)
                            AS routes,
                          EXISTS (SELECT 1 FROM remit_to WHERE in_force) AS vendors,
                          (SELECT COUNT(*) FROM (SELECT 1 FROM remit_to WHERE NOT in_force LIMIT 1000) x) AS waiting,
                          EXISTS (SELECT 1 FROM invoice) AS invoices
                        """)
                .param("payables", AccountRole.PAYABLES.name())
                .param("month", month.toString())
                .param("run", ofFirstRun.toString())
                .param("today", today)
                .query((r, n) -> new Setup.There(
                        r.getBoolean("company"),
                        r.getLong("accounts"),
                        r.getBoolean("payables"),
                        r.getString("unpayable") == null
                                ? List.of()
                                : Arrays.asList(r.getString("unpayable").split(",")),
                        Stream.of(
                                        r.getBoolean("month_open") ? null : month,
                                        r.getBoolean("run_open") ? null : ofFirstRun)
                                .filter(Objects::nonNull)
                                .distinct()
                                .toList(),
                        r.getLong("bank_accounts"),
                        r.getLong("paying"),
                        people,
                        r.getLong("roles_waiting"),
                        r.getBoolean("routes"),
                        r.getLong("vendors"),
                        r.getLong("waiting"),
                        r.getLong("invoices")))
                .single());
    }
}
