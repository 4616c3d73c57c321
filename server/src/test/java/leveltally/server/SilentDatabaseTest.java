package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.junit.jupiter.api.Test;

/** The database keeps its connections and answers nothing: everybody hears so within ten seconds. */
class SilentDatabaseTest {
    private record Heard(Http.Answer answer, Duration after) {}

    private static Heard heard(Callable<Http.Answer> asked) throws Exception {
        long start = System.nanoTime();
        Http.Answer answer = asked.call();
        return new Heard(answer, Duration.ofNanos(System.nanoTime() - start));
    }

    @Test
    void everybodyHearsWithinTenSecondsAndReadinessShowsIt() {
        Http ines = Http.signedIn("ines");
        Http nobody = Http.nobody();
        nobody.get("/api/session/door");
        assertThat(nobody.get("/actuator/health/readiness").status()).isEqualTo(200);
        Map<String, Callable<Http.Answer>> asked = Map.of(
                "a list", () -> ines.get("/api/work"),
                "a deed", () -> ines.post("/api/batches/1/send", "{\"version\":0}"),
                "signing in", () -> nobody.post("/api/session", "{\"signIn\":\"ines\",\"password\":\"no\"}"),
                "readiness", () -> nobody.get("/actuator/health/readiness"));
        Map<String, Heard> all = new TreeMap<>();
        ExecutorService people = Executors.newFixedThreadPool(asked.size());
        App.DATABASE.silentDuring(() -> {
            Map<String, Future<Heard>> under = new TreeMap<>();
            asked.forEach((what, call) -> under.put(what, people.submit(() -> heard(call))));
            under.forEach((what, answer) -> all.put(what, get(answer)));
        });
        people.shutdown();

        all.forEach((what, heard) -> {
            assertThat(heard.answer().status()).as(what).isEqualTo(503);
            assertThat(heard.after()).as(what).isLessThan(Duration.ofSeconds(10));
        });
        assertThat(all.get("a list").answer().body())
                .contains("\"code\":\"database-silent\"", "Try again in a moment")
                .doesNotContain("It is not known");
        assertThat(all.get("a deed").answer().body()).contains("It is not known whether this was done");
        assertThat(all.get("readiness").answer().body()).contains("DOWN");
        assertThat(ines.get("/api/work").status()).isEqualTo(200);
        assertThat(nobody.get("/actuator/health/readiness").status()).isEqualTo(200);
    }

    private static Heard get(Future<Heard> answer) {
        try {
            return answer.get(30, TimeUnit.SECONDS);
        } catch (InterruptedException | ExecutionException | TimeoutException broken) {
            throw new IllegalStateException(broken);
        }
    }
}
