package leveltally.server.ledger;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.LedgerAccount;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads the accounts as they are listed. */
@Component
class AccountRows {
    private final EntityManager entities;
    private final AccountRoles roles;

    AccountRows(EntityManager entities, AccountRoles roles) {
        this.entities = entities;
        this.roles = roles;
    }

    @Transactional(readOnly = true)
    List<AccountView> all(LocalDate today) {
        Map<AccountId, List<String>> played = roles.all().stream()
                .collect(Collectors.groupingBy(
                        AccountRoles.Given::account,
                        Collectors.mapping(
                                given -> given.role().words()
                                        + (given.currency() == null ? "" : ", " + given.currency()),
                                Collectors.toList())));
        return entities.createQuery("select a from LedgerAccountEntity a order by a.code", LedgerAccountEntity.class)
                .getResultStream()
                .map(row -> view(row, played, today))
                .toList();
    }

    private static AccountView view(LedgerAccountEntity row, Map<AccountId, List<String>> played, LocalDate today) {
        LedgerAccount account = row.view();
        return new AccountView(
                row.id,
                row.code,
                row.name,
                row.kind.name(),
                row.kind.words(),
                played.getOrDefault(account.id(), List.of()),
                row.closedFrom,
                account.isOpenOn(today),
                row.version);
    }
}
