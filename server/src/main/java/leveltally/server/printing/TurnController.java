package leveltally.server.printing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Turn;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.printers.StandInPrinter;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The turns of an account, and what its stand-in printer will do wrong. */
@RestController
@RequestMapping("/api/bank-accounts/{account}")
@Needs(Deed.PRINT)
class TurnController {
    private final Turns turns;
    private final BankAccounts accounts;
    private final StandInPrinter standIn;

    TurnController(Turns turns, BankAccounts accounts, StandInPrinter standIn) {
        this.turns = turns;
        this.accounts = accounts;
        this.standIn = standIn;
    }

    record TakeTurn(long batch, @NotNull @Size(max = 200) String reason) {}

    record TurnSerial(long serial) {}

    record FaultRequest(@NotNull StandInPrinter.Fault fault, int sheet) {}

    @PostMapping("/turn")
    @Needs(Deed.PRINT)
    PrintingView.TurnView takeTurn(Actor by, @PathVariable long account, @Valid @RequestBody TakeTurn wanted) {
        Turn turn = turns.take(by, new BankAccountId(account), new BatchId(wanted.batch()), wanted.reason());
        return new PrintingView.TurnView(turn.serial(), by.name(), true, true, 0, false);
    }

    @PostMapping("/turn/renew")
    @Needs(Deed.PRINT)
    void renew(Actor by, @PathVariable long account, @RequestBody TurnSerial turn) {
        turns.renew(by, new BankAccountId(account), turn.serial());
    }

    @PostMapping("/turn/give-back")
    @Needs(Deed.PRINT)
    void giveBack(Actor by, @PathVariable long account, @RequestBody TurnSerial turn) {
        turns.giveBack(by, new BankAccountId(account), turn.serial());
    }

    /** Makes the stand-in printer's next job go wrong; only the stand-in has this. */
    @PostMapping("/stand-in-printer")
    @Needs(Deed.PRINT)
    void fault(Actor by, @PathVariable long account, @Valid @RequestBody FaultRequest wanted) {
        by.mayDo(Deed.PRINT);
        standIn.arm(accounts.get(new BankAccountId(account)).id(), wanted.fault(), wanted.sheet());
    }
}
