package leveltally.server.ledger;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Entries handed to the general ledger. */
@RestController
@RequestMapping("/api/ledger-files")
@Needs(Deed.READ)
class LedgerFileController {
    private final LedgerFiles files;

    LedgerFileController(LedgerFiles files) {
        this.files = files;
    }

    record HandOver(@NotNull LocalDate upTo) {}

    record TakenBack(@NotNull @Size(max = 300) String reason) {}

    @GetMapping
    LedgerFilesView all(Actor by) {
        return files.all(by);
    }

    @PostMapping
    @Needs(Deed.HAND_OVER_LEDGER)
    long make(Actor by, @Valid @RequestBody HandOver wanted) {
        return files.make(by, wanted.upTo());
    }

    @PostMapping("/{id}/taken")
    @Needs(Deed.HAND_OVER_LEDGER)
    void taken(Actor by, @PathVariable long id) {
        files.taken(by, id);
    }

    @PostMapping("/{id}/take-back")
    @Needs(Deed.HAND_OVER_LEDGER)
    void takeBack(Actor by, @PathVariable long id, @Valid @RequestBody TakenBack wanted) {
        files.takeBack(by, id, wanted.reason());
    }

    @GetMapping(value = "/{id}/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @PathVariable long id) {
        return files.csv(by, id);
    }
}
