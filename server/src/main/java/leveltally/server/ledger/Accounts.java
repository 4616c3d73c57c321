package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountList;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The accounts of the ledger. */
@Service
public class Accounts {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;

    Accounts(EntityManager entities, JdbcClient jdbc, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    /**
     * The account with its row shared until the transaction ends, so that it is not closed meanwhile.
     *
     * @throws Refusal when there is none
     */
    @Transactional
    public LedgerAccount share(AccountId id) {
        LedgerAccountEntity row = entities.find(LedgerAccountEntity.class, id.value(), LockModeType.PESSIMISTIC_READ);
        if (row == null) {
            throw noAccount();
        }
        return row.view();
    }

    private static Refusal noAccount() {
        return Refusal.notFound("no-account", "There is no such account. Look at the list again.");
    }

    /** All of them by code. */
    @Transactional(readOnly = true)
    public List<LedgerAccount> all() {
        return entities.createQuery("select a from LedgerAccountEntity a order by a.code", LedgerAccountEntity.class)
                .getResultStream()
                .map(LedgerAccountEntity::view)
                .toList();
    }

    /** Code and name of every account. */
    @Transactional(readOnly = true)
    public Map<Long, String> names() {
        return all().stream().collect(Collectors.toMap(a -> a.id().value(), LedgerAccount::inWords));
    }

    /** @throws Refusal where one of them does not exist, or is closed on that day */
    @Transactional(readOnly = true)
    public void mustTake(Collection<AccountId> wanted, LocalDate ledgerDate) {
        Map<AccountId, LedgerAccount> known =
                all().stream().collect(Collectors.toMap(LedgerAccount::id, Function.identity()));
        for (AccountId id : wanted) {
            LedgerAccount account = known.get(id);
            if (account == null) {
                throw Refusal.invalidField(
                        "no-account",
                        "lines",
                        "A line names an account the ledger does not have. Choose one by its code.");
            }
            account.mustTake(ledgerDate);
        }
    }

    @Transactional
    public AccountId add(Actor by, AccountFacts wanted) {
        by.mayDo(Deed.SET_ACCOUNTS);
        LedgerAccountEntity row = new LedgerAccountEntity();
        row.code = wanted.code();
        row.name = wanted.name();
        row.kind = wanted.kind();
        try {
            entities.persist(row);
            entities.flush();
        } catch (ConstraintViolationException known) {
            throw Refusal.invalidField(
                    "code-known",
                    "code",
                    "There is an account " + wanted.code() + " already. Change that one, or choose another code.");
        }
        audit.record(
                by,
                "add account",
                subject(row.id),
                Map.of("name", row.view().inWords(), "kind", wanted.kind().words()));
        return new AccountId(row.id);
    }

    /**
     * Gives an account another name, or closes it from a day on; without a day it is open again.
     *
     * @param version the one that was seen
     */
    @Transactional
    public void change(Actor by, AccountId id, String name, @Nullable LocalDate closedFrom, long version) {
        by.mayDo(Deed.SET_ACCOUNTS);
        LedgerAccountEntity row = entities.find(LedgerAccountEntity.class, id.value(), LockModeType.PESSIMISTIC_WRITE);
        if (row == null) {
            throw noAccount();
        }
        if (row.version != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed this account meanwhile. Nothing of yours was saved; look at it as it is now.");
        }
        LedgerAccount before = row.view();
        LedgerAccount after = new LedgerAccount(id, before.facts().named(name), closedFrom);
        if (after.equals(before)) {
            return;
        }
        if (closedFrom != null && !Objects.equals(closedFrom, before.closedFrom())) {
            mustBeFreeFrom(before, closedFrom);
        }
        row.name = after.facts().name();
        row.closedFrom = closedFrom;
        audit.record(by, "change account", subject(row.id), Map.of("before", words(before), "after", words(after)));
    }

    /** Closing an account that something is still written to would stop that something. */
    private void mustBeFreeFrom(LedgerAccount account, LocalDate day) {
        Map<String, Object> of = Map.of("id", account.id().value(), "day", day);
        jdbc.sql("SELECT role, currency FROM account_role WHERE account_id = :id ORDER BY role LIMIT 1")
                .params(of)
                .query((r, n) -> leveltally.core.ledger.AccountRole.valueOf(r.getString("role"))
                                .words() + " " + r.getString("currency"))
                .optional()
                .ifPresent(role -> {
                    throw notFree(account, "it is the account for " + role.strip() + ". Give that to another account");
                });
        jdbc.sql("SELECT name FROM bank_account WHERE cash_account_id = :id AND closed_on IS NULL LIMIT 1")
                .params(of)
                .query(String.class)
                .optional()
                .ifPresent(bank -> {
                    throw notFree(account, "it is the cash of the bank account " + bank + ". Close that one");
                });
        jdbc.sql("SELECT COUNT(*) FROM invoice WHERE payables_account_id = :id AND is_open = 1")
                .params(of)
                .query(Long.class)
                .optional()
                .filter(open -> open > 0)
                .ifPresent(open -> {
                    throw notFree(account, open + " open documents are owed on it. Settle them");
                });
        jdbc.sql("SELECT MAX(e.ledger_date) FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id"
                        + " WHERE l.account_id = :id AND e.ledger_date >= :day")
                .params(of)
                .query(LocalDate.class)
                .optional()
                .ifPresent(last -> {
                    throw notFree(
                            account, "there are entries of " + Dates.inWords(last) + " on it. Choose a later day");
                });
    }

    private static Refusal notFree(LedgerAccount account, String why) {
        return Refusal.invalidField(
                "account-needed", "closedFrom", account.inWords() + " cannot be closed so: " + why + " first.");
    }

    /** What bringing in a list would do now. */
    @Transactional(readOnly = true)
    public List<AccountList.Decision> tried(List<AccountList.Row> rows) {
        return AccountList.decide(rows, all().stream().map(LedgerAccount::facts).toList());
    }

    /** Brings in what of a list can be, and answers row by row what was done. */
    @Transactional
    public List<AccountList.Decision> bringIn(Actor by, List<AccountList.Row> rows) {
        by.mayDo(Deed.SET_ACCOUNTS);
        Map<String, LedgerAccountEntity> known = entities.createQuery(
                        "select a from LedgerAccountEntity a", LedgerAccountEntity.class)
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultStream()
                .collect(Collectors.toMap(a -> a.code, Function.identity()));
        List<AccountList.Decision> decisions = AccountList.decide(
                rows, known.values().stream().map(a -> a.view().facts()).toList());
        Map<String, Long> done = new LinkedHashMap<>();
        for (AccountList.Decision decision : decisions) {
            AccountFacts facts = decision.account();
            if (decision.outcome() == AccountList.Outcome.NEW) {
                LedgerAccountEntity row = new LedgerAccountEntity();
                row.code = facts.code();
                row.name = facts.name();
                row.kind = facts.kind();
                entities.persist(row);
            } else if (decision.outcome() == AccountList.Outcome.RENAMED) {
                known.get(facts.code()).name = facts.name();
            }
            done.merge(decision.outcome().words(), 1L, Long::sum);
        }
        audit.record(by, "bring in accounts", "accounts", done);
        return decisions;
    }

    private static String words(LedgerAccount account) {
        return account.inWords()
                + (account.closedFrom() == null ? ", open" : ", closed from " + Dates.inWords(account.closedFrom()));
    }

    private static String subject(long id) {
        return "ledger account " + id;
    }
}
