package awlsmith.server.work;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Other machines, for people. */
@RestController
@RequestMapping("/api/workers")
class WorkerController {
    private final Workers workers;
    private final SharedRenders shared;

    WorkerController(Workers workers, SharedRenders shared) {
        this.workers = workers;
        this.shared = shared;
    }

    /** @param isWorking whether it has a part just now */
    record WorkerView(
            UUID id, String name, Instant madeAt, @Nullable Instant seenAt, long segments, boolean isWorking) {}

    record Name(String name) {}

    /** @param token that the machine signs in with; shown here alone */
    record TokenView(String token) {}

    @GetMapping
    List<WorkerView> workers() {
        Set<String> working = shared.helpers();
        return workers.all().stream()
                .map(one -> new WorkerView(
                        one.id(), one.name(), one.madeAt(), one.seenAt(), one.segments(), working.contains(one.name())))
                .toList();
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    TokenView add(@RequestBody Name name) {
        return new TokenView(workers.add(name.name()));
    }

    /** Its token is worth nothing from now on. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable UUID id) {
        workers.remove(id);
    }
}
