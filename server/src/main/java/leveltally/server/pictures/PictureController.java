package leveltally.server.pictures;

import java.time.Duration;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Pictures to look at. */
@RestController
@RequestMapping("/api/pictures")
@Needs(Deed.READ)
class PictureController {
    private final Pictures pictures;

    PictureController(Pictures pictures) {
        this.pictures = pictures;
    }

    @GetMapping("/{id}")
    ResponseEntity<byte[]> picture(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .body(pictures.toLookAt(id));
    }
}
