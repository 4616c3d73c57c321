package leveltally.server.practice;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.practicebank.Mischief;
import leveltally.practicebank.PracticeBank;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The bank to practise on; outside the demo there is none. */
@RestController
@RequestMapping("/api/practice")
@Needs(Deed.READ)
class PracticeController {
    private final PracticeDays days;

    PracticeController(PracticeDays days) {
        this.days = days;
    }

    record OrderedMischief(long account, @NotNull Mischief what, boolean wanted) {}

    record WantedWriting(long account, @NotNull PracticeBank.Writes writes) {}

    record AskedBank(long account) {}

    record PapersCame(int came) {}

    @GetMapping
    List<PracticeDays.PracticeAccount> look(Actor by) {
        return days.look(by);
    }

    @PostMapping("/day")
    @Needs(Deed.RECORD_CLEARING)
    PracticeDays.PracticeDay letPass(Actor by) {
        return days.letPass(by);
    }

    @PostMapping("/order")
    @Needs(Deed.RECORD_CLEARING)
    void order(Actor by, @Valid @RequestBody OrderedMischief wanted) {
        days.order(by, new BankAccountId(wanted.account()), wanted.what(), wanted.wanted());
    }

    @PostMapping("/writing")
    @Needs(Deed.RECORD_CLEARING)
    void write(Actor by, @Valid @RequestBody WantedWriting wanted) {
        days.write(by, new BankAccountId(wanted.account()), wanted.writes());
    }

    /** Asks for the papers that did not come. */
    @PostMapping("/ask")
    @Needs(Deed.RECORD_CLEARING)
    PapersCame ask(Actor by, @Valid @RequestBody AskedBank of) {
        return new PapersCame(days.ask(by, new BankAccountId(of.account())));
    }
}
