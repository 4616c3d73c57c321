package leveltally.server.ledger;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Currency;
import java.util.List;
import leveltally.core.ledger.AccountFacts;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountList;
import leveltally.core.ledger.AccountRole;
import leveltally.core.money.Currencies;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The accounts of the ledger and what they are for. */
@RestController
@RequestMapping("/api/ledger-accounts")
@Needs(Deed.READ)
class AccountController {
    private static final int MOST_TEXT = 1_000_000;

    private final Accounts accounts;
    private final AccountRoles roles;
    private final AccountRows rows;

    AccountController(Accounts accounts, AccountRoles roles, AccountRows rows) {
        this.accounts = accounts;
        this.roles = roles;
        this.rows = rows;
    }

    record NewLedgerAccount(
            @NotNull @Size(max = 40) String code,
            @NotNull @Size(max = 200) String name,
            @NotNull AccountKind kind) {}

    record LedgerAccountWanted(
            @NotNull @Size(max = 200) String name, @Nullable LocalDate closedFrom, long version) {}

    record AccountRoleWanted(
            @NotNull AccountRole role,
            @Nullable @Size(max = 3) String currency) {}

    record AccountListWanted(@NotNull @Size(max = MOST_TEXT) String text) {}

    /** What becomes of one row of a list. */
    record AccountRowView(int line, String code, String name, String kind, String outcome, String words, String why) {}

    @GetMapping
    List<AccountView> accounts(Actor by) {
        by.mayDo(Deed.READ);
        return rows.all(by.today());
    }

    /** The roles there are, with the kinds that can play them. */
    @GetMapping("/roles")
    List<AccountRoleView> roles(Actor by) {
        by.mayDo(Deed.READ);
        return Arrays.stream(AccountRole.values())
                .map(role -> new AccountRoleView(
                        role.name(),
                        role.words(),
                        role.isPerCurrency(),
                        Arrays.stream(AccountKind.values())
                                .filter(role::takes)
                                .map(Enum::name)
                                .toList()))
                .toList();
    }

    record AccountRoleView(String role, String words, boolean perCurrency, List<String> kinds) {}

    /** The kinds an account can be of. */
    @GetMapping("/kinds")
    List<AccountKindView> kinds(Actor by) {
        by.mayDo(Deed.READ);
        return Arrays.stream(AccountKind.values())
                .map(kind -> new AccountKindView(kind.name(), kind.words()))
                .toList();
    }

    record AccountKindView(String kind, String words) {}

    @PostMapping
    @Needs(Deed.SET_ACCOUNTS)
    long add(Actor by, @Valid @RequestBody NewLedgerAccount wanted) {
        return accounts.add(by, new AccountFacts(wanted.code(), wanted.name(), wanted.kind()))
                .value();
    }

    @PostMapping("/{id}")
    @Needs(Deed.SET_ACCOUNTS)
    void change(Actor by, @PathVariable long id, @Valid @RequestBody LedgerAccountWanted wanted) {
        accounts.change(by, new AccountId(id), wanted.name(), wanted.closedFrom(), wanted.version());
    }

    @PostMapping("/{id}/role")
    @Needs(Deed.SET_ACCOUNTS)
    void role(Actor by, @PathVariable long id, @Valid @RequestBody AccountRoleWanted wanted) {
        roles.give(by, wanted.role(), currency(wanted.currency()), new AccountId(id));
    }

    private static @Nullable Currency currency(@Nullable String code) {
        return code == null || code.isBlank() ? null : Currencies.typed(code, "currency");
    }

    /** What bringing in a list would do; nothing is changed. */
    @PostMapping("/list/try")
    @Needs(Deed.SET_ACCOUNTS)
    List<AccountRowView> tried(@Valid @RequestBody AccountListWanted wanted) {
        return views(accounts.tried(AccountListFile.rows(wanted.text())));
    }

    /** Brings a list in, and says row by row what was done. */
    @PostMapping("/list")
    @Needs(Deed.SET_ACCOUNTS)
    List<AccountRowView> bringIn(Actor by, @Valid @RequestBody AccountListWanted wanted) {
        return views(accounts.bringIn(by, AccountListFile.rows(wanted.text())));
    }

    private static List<AccountRowView> views(List<AccountList.Decision> decisions) {
        return decisions.stream()
                .map(one -> new AccountRowView(
                        one.row().line(),
                        one.row().code().strip(),
                        one.row().name().strip(),
                        one.row().kind().strip(),
                        one.outcome().name(),
                        one.outcome().words(),
                        one.why()))
                .toList();
    }
}
