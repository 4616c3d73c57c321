package leveltally.server.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.CashAvailable;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.CashMovements;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The cash there is for a check date. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class CashController {
    private final Cash cash;
    private final BankAccounts accounts;
    private final CashMovements movements;

    CashController(Cash cash, BankAccounts accounts, CashMovements movements) {
        this.cash = cash;
        this.accounts = accounts;
        this.movements = movements;
    }

    record CashLineView(String words, String detail, String amount) {}

    /** A movement at the bank that the ledger does not have yet. */
    record MovementView(long id, LocalDate date, String text, String amount) {}

    record CashView(
            List<CashLineView> lines, String available, String currency, String floor, List<MovementView> movements) {}

    /** The cash there is for the check date, line by line. */
    @GetMapping("/due/cash")
    CashView cash(Actor by, @ParameterObject @ModelAttribute DueQuestion question) {
        by.mayDo(Deed.READ);
        BankAccount account = accounts.get(question.bankAccount());
        CashAvailable available = cash.available(account, question.checkDay(account, by.today()), 0);
        return new CashView(
                available.lines().stream()
                        .map(line -> new CashLineView(
                                line.words(), line.detail(), line.amount().toString()))
                        .toList(),
                available.available().toString(),
                account.currency().getCurrencyCode(),
                account.floor().toString(),
                movements.open(account).stream()
                        .map(m -> new MovementView(
                                m.id(), m.date(), m.text(), m.amount().toString()))
                        .toList());
    }
}
