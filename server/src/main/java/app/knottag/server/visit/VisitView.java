package app.knottag.server.visit;

import app.knottag.core.visit.DoNow;
import app.knottag.core.visit.Helps.Help;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Obstacle;
import app.knottag.server.visit.HandStore.MinutesRow;
import app.knottag.server.visit.TaskStore.TaskRow;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A visit as it is shown.
 *
 * @param behind whether it runs later than its plan, so that it is to be planned anew
 */
record VisitView(
        VisitHead head,
        @Nullable Instant beganAt,
        @Nullable Instant endedAt,
        List<HandView> people,
        VisitMeans means,
        List<VisitUnitView> units,
        List<TaskRow> tasks,
        @Nullable PlanOfVisit plan,
        List<MinutesRow> real,
        Learned.Offer offer,
        boolean behind,
        int version) {

    /** How far a visit is. */
    enum VisitState {
        PLANNED,
        RUNNING,
        OVER
    }

    /** Which visit it is. */
    record VisitHead(
            long id,
            String name,
            VisitState state,
            long siteId,
            String site,
            Instant begins,
            @Nullable Instant due) {}

    /** A visit in a list. */
    record VisitLine(VisitHead head, int units, List<String> people) {}

    /** What is there. */
    record VisitMeans(
            List<VisitBrief.PlaceHours> places,
            List<VisitBrief.FewTools> tools,
            @Nullable Integer outlets,
            @Nullable Integer ports,
            double megabits,
            int walk,
            int travel) {}

    /**
     * Somebody who comes, and what they are to do now.
     *
     * @param there minutes that they have been there since the visit began
     */
    record HandView(
            String name,
            List<String> skills,
            @Nullable Instant from,
            @Nullable Instant until,
            boolean gone,
            int there,
            ToDoView now) {}

    /**
     * What somebody is to do now.
     *
     * @param unitId the endpoint, a task counted below zero, or null when there is nothing to do
     * @param since when they took it in hand, or null when they have not
     */
    record ToDoView(
            DoNow.What what,
            @Nullable Long unitId,
            long siteId,
            String unit,
            String place,
            String title,
            int steps,
            List<String> carry,
            Instant at,
            @Nullable Instant since,
            String because) {}

    /** One stretch in the picture; {@code tight} when there is no slack in it. A task counts below zero. */
    record TurnView(
            long unitId,
            long siteId,
            String unit,
            String place,
            String title,
            int who,
            Instant from,
            Instant until,
            Instant done,
            int slack,
            boolean tight) {}

    /** By when somebody begins at the latest. */
    record LatestView(int who, Instant at) {}

    /** Before when nobody can be done, and how that is known. */
    record BoundView(Instant at, boolean best, boolean searched) {}

    /** By when it is done on five and on nine days of ten, and on how many of a hundred in time. */
    /** @param without devices that are not reckoned with, since they cannot be done or do not fit */
    record OddsView(Instant half, Instant nine, int inTime, List<String> without) {}

    /** Of how many of the steps the minutes are learned, and not those of the kind. */
    record KnownView(int learned, int steps) {}

    record PlanOfVisit(
            List<TurnView> turns,
            Instant from,
            Instant finish,
            BoundView bound,
            int walking,
            int oneAfterAnother,
            OddsView odds,
            List<Help> helps,
            List<Obstacle> obstacles,
            List<String> left,
            List<LatestView> latest,
            KnownView known) {}

    /** @param aside whether it was left for another day while the visit ran */
    record VisitUnitView(
            long endpointId,
            long siteId,
            String endpoint,
            String place,
            boolean bench,
            boolean first,
            int hands,
            int chain,
            boolean done,
            boolean aside) {}
}
