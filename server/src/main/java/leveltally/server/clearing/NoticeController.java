package leveltally.server.clearing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.List;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** What banks say of payments by file afterwards. */
@RestController
@RequestMapping("/api/bank-notices")
@Needs(Deed.READ)
class NoticeController {
    private final BankNotices notices;
    private final NoticeFiles files;
    private final NoticeList list;

    NoticeController(BankNotices notices, NoticeFiles files, NoticeList list) {
        this.notices = notices;
        this.files = files;
        this.list = list;
    }

    /** What came of a file, in words. */
    record NoticesSaid(String said) {}

    record NoticeClosed(@NotNull @Size(max = 300) String why) {}

    record NoticeAgain(boolean done) {}

    @GetMapping
    List<NoticeList.NoticeView> of(Actor by, @RequestParam long account) {
        return list.of(by, new BankAccountId(account));
    }

    /** Reads a status report, or a file of returns and changes; which of the two it is, it says itself. */
    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @Needs(Deed.RECORD_CLEARING)
    NoticesSaid read(Actor by, @RequestParam long account, @RequestPart("file") MultipartFile file) throws IOException {
        // before it is taken into memory
        by.mayDo(Deed.RECORD_CLEARING);
        BankReading.mustBeShort(file.getSize(), BankReading.LONGEST);
        return new NoticesSaid(files.read(by, new BankAccountId(account), file.getBytes()));
    }

    @PostMapping("/{id}/again")
    @Needs(Deed.RECORD_CLEARING)
    NoticeAgain again(Actor by, @PathVariable long id) {
        return new NoticeAgain(notices.again(by, id));
    }

    @PostMapping("/{id}/close")
    @Needs(Deed.RECORD_CLEARING)
    void close(Actor by, @PathVariable long id, @Valid @RequestBody NoticeClosed wanted) {
        notices.close(by, id, wanted.why());
    }
}
