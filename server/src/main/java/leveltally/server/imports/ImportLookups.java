package leveltally.server.imports;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.ledger.LedgerAccount;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** What rows are checked against: vendors, accounts, periods, and what is here already. */
@Component
class ImportLookups {
    private final JdbcClient jdbc;
    private final Accounts accounts;
    private final BankAccounts bankAccounts;
    private final JsonMapper json;

    ImportLookups(JdbcClient jdbc, Accounts accounts, BankAccounts bankAccounts, JsonMapper json) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.bankAccounts = bankAccounts;
        this.json = json;
    }

    /** What is known at the start of a check; vendors are looked up as they appear. */
    Known known() {
        Map<String, LedgerAccount> byCode =
                accounts.all().stream().collect(Collectors.toMap(a -> a.facts().code(), Function.identity()));
        Set<YearMonth> open = jdbc.sql("SELECT month FROM period WHERE NOT locked").query(String.class).list().stream()
                .map(YearMonth::parse)
                .collect(Collectors.toSet());
        return new Known(byCode, open, Set.copyOf(bankAccounts.currencies()));
    }

    boolean isAccount(String code) {
        return jdbc.sql("SELECT COUNT(*) FROM ledger_account WHERE code = :code")
                        .param("code", code)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** The rows of one file ask these again and again. */
    final class Known implements InvoiceRow.Known {
        private static final int MOST_KEPT = 100_000;
        private final Map<String, LedgerAccount> accounts;
        private final Set<YearMonth> open;
        private final Set<Currency> currencies;
        private final Map<String, Currency> vendors = new HashMap<>();

        private Known(Map<String, LedgerAccount> accounts, Set<YearMonth> open, Set<Currency> currencies) {
            this.accounts = accounts;
            this.open = open;
            this.currencies = currencies;
        }

        /** Looks a vendor up unless it is known; vendors far apart in number come one by one. */
        void prepare(String number) {
            if (!number.isEmpty() && !vendors.containsKey(number)) {
                if (vendors.size() > MOST_KEPT) {
                    vendors.clear();
                }
                vendors.put(
                        number,
                        jdbc.sql("SELECT currency FROM vendor WHERE number = :number AND BINARY number = :number"
                                        + " AND merged_into_id IS NULL")
                                .param("number", number)
                                .query(String.class)
                                .optional()
                                .map(Currency::getInstance)
                                .orElse(null));
            }
        }

        /** Those in which the company can pay. */
        Set<Currency> currencies() {
            return currencies;
        }

        @Override
        public @Nullable Currency vendor(String number) {
            return vendors.get(number);
        }

        @Override
        public boolean paysIn(Currency currency) {
            return currencies.contains(currency);
        }

        @Override
        public @Nullable LedgerAccount account(String code) {
            return accounts.get(code);
        }

        @Override
        public boolean open(LocalDate ledgerDate) {
            return open.contains(YearMonth.from(ledgerDate));
        }
    }

    /** Those of the identities that are here already; one statement for a block. */
    Set<String> alreadyHere(ImportKind kind, Set<String> identities) {
        if (identities.isEmpty()) {
            return Set.of();
        }
        if (kind == ImportKind.VENDORS) {
            return new HashSet<>(jdbc.sql(
                            "SELECT CONCAT('vendor ', LOWER(number)) FROM vendor WHERE number IN (:numbers)")
                    .param(
                            "numbers",
                            identities.stream()
                                    .map(i -> i.substring("vendor ".length()))
                                    .toList())
                    .query(String.class)
                    .list());
        }
        List<Map<String, String>> asked = identities.stream()
                .map(identity -> identity.split(" ", 3))
                .map(words -> Map.of("k", words[0].toUpperCase(java.util.Locale.ROOT), "n", words[1], "r", words[2]))
                .toList();
        return new HashSet<>(jdbc.sql("""
                        SELECT CONCAT(LOWER(x.k), ' ', x.n, ' ', x.r) FROM JSON_TABLE(:asked, '$[*]' COLUMNS (
                          k VARCHAR(20) PATH '$.k', n VARCHAR(12) PATH '$.n', r VARCHAR(40) PATH '$.r')) x
                        JOIN vendor v ON v.number = x.n COLLATE utf8mb4_unicode_ci
                        JOIN invoice i ON i.vendor_id = v.id AND i.cancelled_on IS NULL
                          AND i.kind = x.k COLLATE utf8mb4_unicode_ci
                          AND i.reference = x.r COLLATE utf8mb4_unicode_ci
                        """)
                .param("asked", json.writeValueAsString(asked))
                .query(String.class)
                .list());
    }

    /** The account of a vendor's last invoice: where a document names none. */
    String usualAccount(String vendorNumber) {
        return jdbc.sql("""
                        SELECT a.code FROM invoice i JOIN vendor v ON v.id = i.vendor_id
                        JOIN invoice_line l ON l.invoice_id = i.id JOIN ledger_account a ON a.id = l.account_id
                        WHERE v.number = :number ORDER BY i.id DESC LIMIT 1
                        """)
                .param("number", vendorNumber)
                .query(String.class)
                .optional()
                .orElse("");
    }
}
