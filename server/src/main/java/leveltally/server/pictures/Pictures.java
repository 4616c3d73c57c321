package leveltally.server.pictures;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.view.ViewBox;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Timestamp;
import java.util.Base64;
import javax.imageio.ImageIO;
import leveltally.core.Refusal;
import leveltally.core.paper.Picture;
import leveltally.core.people.Actor;
import leveltally.server.frame.Seal;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The pictures, which are only added. */
@Service
public class Pictures {
    private static final int SEEN_PIXELS = 900;

    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final Seal seal;
    /** As browsers get them; a picture never changes. */
    private final Cache<Long, byte[]> seen =
            Caffeine.newBuilder().maximumSize(20).build();

    Pictures(JdbcClient jdbc, WorkIds ids, Seal seal) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.seal = seal;
    }

    /**
     * Keeps a picture.
     *
     * @param base64 a PNG or an SVG, in base 64
     * @param sealed whether only printing may see it
     * @throws Refusal when it is none
     */
    @Transactional
    public Picture keep(Actor by, String base64, boolean sealed) {
        PictureFile file = PictureFile.of(decoded(base64));
        long id = ids.supply().next();
        jdbc.sql("INSERT INTO picture (id, format, width, height, sealed, content, made_at, made_by)"
                        + " VALUES (:id, :format, :width, :height, :sealed, :content, :at, :by)")
                .param("id", id)
                .param("format", file.format().name())
                .param("width", file.width())
                .param("height", file.height())
                .param("sealed", sealed)
                .param("content", sealed ? seal.sealBytes(file.content()) : file.content())
                .param("at", Timestamp.from(by.now()))
                .param("by", by.person().value())
                .update();
        return new Picture(id, file.width(), file.height());
    }

    private static byte[] decoded(String base64) {
        try {
            return Base64.getDecoder().decode(base64);
        } catch (IllegalArgumentException none) {
            throw Refusal.invalidField("picture", "content", "The file did not arrive whole. Choose it again.");
        }
    }

    /** Its size; what it shows is read when it is drawn. */
    @Transactional(readOnly = true)
    public Picture get(long id) {
        return jdbc.sql("SELECT id, width, height FROM picture WHERE id = :id")
                .param("id", id)
                .query((r, n) -> new Picture(r.getLong("id"), r.getDouble("width"), r.getDouble("height")))
                .single();
    }

    /** Dots that show all of it, 0 for shapes that are sharp at any size. */
    @Transactional(readOnly = true)
    public int dotsAcross(long id) {
        return jdbc.sql("SELECT IF(format = 'PNG', width, 0) AS dots FROM picture WHERE id = :id")
                .param("id", id)
                .query(Integer.class)
                .single();
    }

    /** What it shows, for paper; opened if it is sealed. */
    @Transactional(readOnly = true)
    public Ink ink(long id) {
        Row row = row(id);
        byte[] content = row.sealed() ? seal.openBytes(row.content()) : row.content();
        return row.format() == PictureFormat.PNG
                ? new Ink.Dots(content)
                : new Ink.Shapes(PictureFile.document(content));
    }

    /**
     * What it shows as a PNG that a browser may have.
     *
     * @throws Refusal when it is sealed
     */
    @Transactional(readOnly = true)
    public byte[] toLookAt(long id) {
        byte[] known = seen.getIfPresent(id);
        if (known != null) {
            return known;
        }
        Row row = row(id);
        if (row.sealed()) {
            throw Refusal.notFound("no-picture", "There is no such picture to look at.");
        }
        byte[] png = row.format() == PictureFormat.PNG ? row.content() : rastered(PictureFile.document(row.content()));
        seen.put(id, png);
        return png;
    }

    private static byte[] rastered(SVGDocument document) {
        double scale = SEEN_PIXELS / Math.max(document.size().width, document.size().height);
        int width = (int) Math.max(1, Math.round(document.size().width * scale));
        int height = (int) Math.max(1, Math.round(document.size().height * scale));
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        Graphics2D pen = image.createGraphics();
        try {
            pen.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
            document.render(null, pen, new ViewBox(width, height));
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            ImageIO.write(image, "png", bytes);
            return bytes.toByteArray();
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        } finally {
            pen.dispose();
        }
    }

    private record Row(PictureFormat format, boolean sealed, byte[] content) {}

    private Row row(long id) {
        return jdbc.sql("SELECT format, sealed, content FROM picture WHERE id = :id")
                .param("id", id)
                .query((r, n) -> new Row(
                        PictureFormat.valueOf(r.getString("format")), r.getBoolean("sealed"), r.getBytes("content")))
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-picture", "There is no such picture to look at."));
    }
}
