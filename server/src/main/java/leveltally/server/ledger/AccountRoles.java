package leveltally.server.ledger;

import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which account of the ledger takes what. */
@Service
public class AccountRoles {
    private static final String ANY = "";

    private final JdbcClient jdbc;
    private final Accounts accounts;
    private final AuditTrail audit;

    AccountRoles(JdbcClient jdbc, Accounts accounts, AuditTrail audit) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.audit = audit;
    }

    /** @param currency null where the role is the same for all */
    public record Given(AccountRole role, @Nullable String currency, AccountId account) {}

    @Transactional(readOnly = true)
    public List<Given> all() {
        return jdbc.sql("SELECT role, currency, account_id FROM account_role ORDER BY role, currency")
                .query((r, n) -> new Given(
                        AccountRole.valueOf(r.getString("role")),
                        r.getString("currency").equals(ANY) ? null : r.getString("currency"),
                        new AccountId(r.getLong("account_id"))))
                .list();
    }

    /** The account that plays the role where {@code currency} is paid, if one does yet. */
    @Transactional(readOnly = true)
    public Optional<AccountId> find(AccountRole role, Currency currency) {
        return jdbc.sql("SELECT account_id FROM account_role WHERE role = :role AND currency = :currency")
                .param("role", role.name())
                .param("currency", role.isPerCurrency() ? currency.getCurrencyCode() : ANY)
                .query(Long.class)
                .optional()
                .map(AccountId::new);
    }

    /** @throws Refusal naming what is missing when none plays it */
    @Transactional(readOnly = true)
    public AccountId of(AccountRole role, Currency currency) {
        return find(role, currency)
                .orElseThrow(() -> Refusal.conflict(
                        "no-account-for",
                        "The ledger has no account for " + role.words()
                                + (role.isPerCurrency() ? " in " + currency.getCurrencyCode() : "")
                                + " yet. A controller or an administrator says which one it is, on the ledger's page of"
                                + " accounts."));
    }

    /** Gives a role to an account, for what is written from now on. */
    @Transactional
    public void give(Actor by, AccountRole role, @Nullable Currency currency, AccountId wanted) {
        by.mayDo(Deed.SET_ACCOUNTS);
        if (role.isPerCurrency() == (currency == null)) {
            throw Refusal.invalidField(
                    "role-currency",
                    "currency",
                    role.isPerCurrency()
                            ? "Say for which currency: each has an account of its own for " + role.words() + "."
                            : role.words() + " is one account for all currencies.");
        }
        LedgerAccount account = accounts.share(wanted);
        if (!role.takes(account.facts().kind())) {
            throw Refusal.invalidField(
                    "role-kind",
                    "role",
                    account.inWords() + " is of the kind "
                            + account.facts().kind().words() + "; the account for " + role.words() + " is of the kind "
                            + role.kindsInWords() + ".");
        }
        account.mustTake(by.today());
        jdbc.sql("INSERT INTO account_role (role, currency, account_id) VALUES (:role, :currency, :account)"
                        + " ON DUPLICATE KEY UPDATE account_id = :account")
                .param("role", role.name())
                .param("currency", currency == null ? ANY : currency.getCurrencyCode())
                .param("account", wanted.value())
                .update();
        audit.record(
                by,
                "give account its role",
                "ledger account " + wanted.value(),
                Map.of("role", role.words() + (currency == null ? "" : " in " + currency.getCurrencyCode())));
    }
}
