package leveltally.server.ledger;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The bank accounts and their cash. */
@RestController
@RequestMapping("/api/bank-accounts")
@Needs(Deed.READ)
class BankAccountController {
    private final BankAccounts accounts;
    private final BankAccountChanges changes;
    private final CashMovements movements;

    BankAccountController(BankAccounts accounts, BankAccountChanges changes, CashMovements movements) {
        this.accounts = accounts;
        this.changes = changes;
        this.movements = movements;
    }

    record BankAccountView(
            long id,
            String name,
            String bankName,
            String currency,
            boolean positivePay,
            String floor,
            @Nullable LocalDate closedOn,
            List<WayView> ways) {}

    /** A way that payments can be made by. */
    record WayView(long id, String name, String method, String words) {}

    /** @param closed whether closed ones are listed, too */
    @GetMapping
    List<BankAccountView> bankAccounts(Actor by, @RequestParam(defaultValue = "false") boolean closed) {
        by.mayDo(Deed.READ);
        return accounts.list().stream()
                .filter(a -> closed || a.closedOn() == null)
                .map(a -> new BankAccountView(
                        a.id().value(),
                        a.name(),
                        a.bankName(),
                        a.currency().getCurrencyCode(),
                        a.positivePay(),
                        a.floor().toString(),
                        a.closedOn(),
                        a.ways().stream()
                                .filter(w -> !w.recordedOnly())
                                .map(w -> new WayView(
                                        w.id().value(),
                                        w.name(),
                                        w.method().name(),
                                        w.method().words()))
                                .toList()))
                .toList();
    }

    record Floor(@NotNull @Size(max = 30) String floor) {}

    record Movement(
            @NotNull LocalDate date,
            @NotNull @Size(max = 120) String text,
            @NotNull @Size(max = 30) String amount) {}

    @PostMapping("/{id}/floor")
    @Needs(Deed.SET_CASH_FLOOR)
    void floor(Actor by, @PathVariable long id, @Valid @RequestBody Floor wanted) {
        changes.keepFloor(by, new BankAccountId(id), wanted.floor());
    }

    @PostMapping("/{id}/movements")
    @Needs(Deed.BRING_IN_CASH)
    void movement(Actor by, @PathVariable long id, @Valid @RequestBody Movement wanted) {
        movements.bringIn(by, new BankAccountId(id), wanted.date(), wanted.text(), wanted.amount());
    }

    record MovementClosed(@NotNull @Size(max = 200) String why) {}

    /** The ledger has a cash movement by now. */
    @PostMapping("/{id}/movements/{movement}/close")
    @Needs(Deed.BRING_IN_CASH)
    void close(
            Actor by, @PathVariable long id, @PathVariable long movement, @Valid @RequestBody MovementClosed wanted) {
        movements.close(by, new BankAccountId(id), movement, wanted.why());
    }
}
