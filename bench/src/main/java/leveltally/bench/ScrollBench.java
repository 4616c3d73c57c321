package leveltally.bench;

import java.io.File;
import java.net.HttpCookie;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.openqa.selenium.By;
import org.openqa.selenium.Cookie;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Scrolls a list of 100,000 rows in the browser: frames with a blank row, and tasks over 50 ms. */
final class ScrollBench {
    private static final String SCROLL = """
            const done = arguments[arguments.length - 1];
            const grid = document.querySelector('[role=grid]');
            const tasks = [];
            new PerformanceObserver(list => list.getEntries().forEach(e => tasks.push(e.duration)))
              .observe({ entryTypes: ['longtask'] });
            let frames = 0, blank = 0, run = 0, longest = 0;
            const began = performance.now();
            function frame(now) {
              frames++;
              const box = grid.getBoundingClientRect();
              const missing = [...grid.querySelectorAll('[role=presentation] > [aria-hidden]')].some(row => {
                const at = row.getBoundingClientRect();
                return at.height > 20 && at.bottom > box.top && at.top < box.bottom;
              });
              run = missing ? run + 1 : 0;
              blank += missing ? 1 : 0;
              longest = Math.max(longest, run);
              if (now - began < 10000) { grid.scrollTop += 60; requestAnimationFrame(frame); }
              else setTimeout(() => done({ frames, blank, longest, rows: Math.round(grid.scrollTop / 30),
                tasks: tasks.length, worst: Math.round(Math.max(0, ...tasks)) }), 200);
            }
            requestAnimationFrame(frame);
            """;

    private ScrollBench() {}

    /** @return one line that says what was seen */
    static String run(String base, String path, List<HttpCookie> cookies) throws Exception {
        Path profile = Files.createTempDirectory("level-tally-scroll");
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments(
                "--headless=new",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-dev-shm-usage",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-quic",
                "--user-data-dir=" + profile);
        var service = new ChromeDriverService.Builder()
                .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                .build();
        ChromeDriver driver = new ChromeDriver(service, options);
        try {
            driver.manage().window().setSize(new Dimension(1280, 800));
            driver.manage().timeouts().scriptTimeout(Duration.ofSeconds(60));
            driver.get(base + "/");
            for (HttpCookie cookie : cookies) {
                driver.manage().addCookie(new Cookie(cookie.getName(), cookie.getValue()));
            }
            driver.get(base + path);
            new WebDriverWait(driver, Duration.ofSeconds(60))
                    .until(d -> d.findElements(By.cssSelector("[role=grid] [data-key]"))
                                    .size()
                            > 5);
            Thread.sleep(2_000);
            @SuppressWarnings("unchecked")
            Map<String, Object> seen = (Map<String, Object>) driver.executeAsyncScript(SCROLL);
            return "%s rows scrolled past in 10 s of a list of 100,000: %s frames, %s with a blank row (%s in a row at most), "
                            .formatted(seen.get("rows"), seen.get("frames"), seen.get("blank"), seen.get("longest"))
                    + "%s tasks over 50 ms (the longest %s ms)".formatted(seen.get("tasks"), seen.get("worst"));
        } finally {
            driver.quit();
            new ProcessBuilder("rm", "-rf", profile.toString()).start().waitFor();
        }
    }
}
