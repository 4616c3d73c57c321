package leveltally.server.electronic;

import jakarta.validation.Valid;
import leveltally.core.Refusal;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What banks agreed on for the files of a way to pay. */
@RestController
@RequestMapping("/api/bank-accounts/{id}/ways/{way}/files")
@Needs(Deed.READ)
class FilesController {
    private final ElectronicWays ways;
    private final FilesSettings settings;

    FilesController(ElectronicWays ways, FilesSettings settings) {
        this.ways = ways;
        this.settings = settings;
    }

    @GetMapping
    FilesSetting setting(Actor by, @PathVariable long id, @PathVariable long way) {
        by.mayDo(Deed.READ);
        return settings.of(new BankAccountId(id), new WayId(way));
    }

    @PostMapping
    @Needs(Deed.SET_BANK_ACCOUNT)
    void set(
            Actor by,
            @PathVariable long id,
            @PathVariable long way,
            @Valid @RequestBody FilesSetting.FilesTyped typed) {
        FileAgreement agreement = typed.agreement();
        if (agreement == null) {
            throw Refusal.invalid("no-agreement", "Say what the bank agreed on: for ACH, or for credit transfers.");
        }
        ways.set(
                by,
                new BankAccountId(id),
                new WayId(way),
                new ElectronicWays.WantedFiles(
                        agreement,
                        typed.iban(),
                        typed.bic(),
                        typed.perPayment(),
                        typed.perFile(),
                        typed.perDay(),
                        typed.splits(),
                        typed.cutOff(),
                        typed.ahead(),
                        typed.prefix(),
                        typed.nextReference(),
                        typed.version()));
    }
}
