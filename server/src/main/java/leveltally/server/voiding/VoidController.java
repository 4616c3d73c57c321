package leveltally.server.voiding;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.Map;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.Period;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.Accounts;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Showing what a void would write, and writing it. */
@RestController
@RequestMapping("/api/checks/{id}")
@Needs(Deed.READ)
class VoidController {
    private final Voiding voiding;
    private final Accounts accounts;

    VoidController(Voiding voiding, Accounts accounts) {
        this.voiding = voiding;
        this.accounts = accounts;
    }

    record VoidLineView(String account, String debit, String credit) {}

    /** {@code bank} is what the bank knows of the check and would hear of the void. */
    record VoidView(LocalDate date, String period, List<VoidLineView> lines, String bank) {}

    record VoidRequest(
            @NotNull LocalDate date,
            @NotNull @Size(max = 200) String reason) {}

    @GetMapping("/void-preview")
    VoidView preview(Actor by, @PathVariable long id, @RequestParam LocalDate date) {
        by.mayDo(Deed.READ);
        JournalEntry entry = voiding.preview(new CheckNumberId(id), date, by.today());
        Map<Long, String> names = accounts.names();
        List<VoidLineView> lines = entry.lines().stream()
                .map(line -> {
                    boolean debit = line.side() == JournalLine.Side.DEBIT;
                    String amount = line.amount().toString();
                    return new VoidLineView(
                            names.get(line.account().value()), debit ? amount : "", debit ? "" : amount);
                })
                .toList();
        return new VoidView(
                date,
                new Period(YearMonth.from(date), false).inWords(),
                lines,
                voiding.bankKnows(new CheckNumberId(id)).ofAVoid());
    }

    @PostMapping("/void")
    @Needs(Deed.VOID_CHECK)
    void voidCheck(Actor by, @PathVariable long id, @Valid @RequestBody VoidRequest wanted) {
        voiding.voidCheck(by, new CheckNumberId(id), wanted.date(), wanted.reason());
    }
}
