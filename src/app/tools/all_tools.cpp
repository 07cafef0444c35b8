#include "app/tools/all_tools.h"

#include "app/kinds/current.h"

namespace erdwerk::app::tools {

// The one list: stage and heading, then what stands under it. TOOL names the function that declares a tool,
// COMMAND a command of the window, EVERYWHERE a tool of all stages.
// clang-format off
#define ERDWERK_RACK(SECTION, TOOL, COMMAND, EVERYWHERE)                                                 \
    SECTION(Field, "Points and lines")                                                                   \
    COMMAND("import-points") COMMAND("import-lines") COMMAND("connect-number") COMMAND("connect-code")   \
    SECTION(Field, "Clouds and rasters")                                                                 \
    COMMAND("import-cloud") COMMAND("import-raster") TOOL(addSurveyPoint) TOOL(findGround)         \
    TOOL(classByHand) TOOL(cropCloud) TOOL(sampleGrid)                                                   \
    SECTION(Ground, "Surface")                                                                           \
    COMMAND("new-surface") COMMAND("thin-surface")                                                       \
    SECTION(Ground, "Sources")                                                                           \
    TOOL(addBreakline) TOOL(addContour) TOOL(setEdge) TOOL(addOpening) TOOL(addIsland) TOOL(takeOutLine) \
    SECTION(Ground, "Crests and toes")                                                                   \
    TOOL(findCreases) TOOL(traceCrease)                                                                  \
    SECTION(Ground, "Own edits")                                                                         \
    TOOL(flipSide) TOOL(removeTriangle) TOOL(addSurfacePoint) TOOL(moveSurfacePoint)                     \
    TOOL(leaveOutSurfacePoint) TOOL(liftSurface) TOOL(takeOverSurface)                                   \
    SECTION(Ground, "What it gives")                                                                     \
    TOOL(runoffLine) COMMAND("extract") TOOL(contourAsLines) TOOL(triangleAsLine) COMMAND("volumes")     \
    COMMAND("section") COMMAND("export-surface")                                                         \
    SECTION(Shape, "Lines")                                                                              \
    TOOL(drawLine) TOOL(insertCorner) TOOL(moveCorner) TOOL(deleteCorner) TOOL(splitLine)                \
    TOOL(cutStretchOut) TOOL(joinLines) TOOL(reachLine) TOOL(reverseLine) TOOL(closeLine)                \
    SECTION(Shape, "Heights")                                                                            \
    TOOL(heightsAtHand) TOOL(insertGradePoint) TOOL(drape) TOOL(liftLine) TOOL(matchLine) TOOL(levelWith)                \
    TOOL(giveHeights) COMMAND("freeze") COMMAND("free-heights")                                          \
    SECTION(Shape, "Lines from lines")                                                                   \
    TOOL(offsetRows) TOOL(meetLines) COMMAND("loosen")                                                   \
    SECTION(Shape, "Earthworks")                                                                         \
    TOOL(batter) TOOL(pad) TOOL(pond)                                                                    \
    SECTION(Shape, "Arcs and fewer points")                                                              \
    TOOL(roundCorner) TOOL(bendSide) TOOL(arcOfRun) TOOL(smoothLine) TOOL(thinLines)                     \
    SECTION(Shape, "Whole things")                                                                       \
    TOOL(moveThings) TOOL(copyThings) TOOL(turnThings) TOOL(mirrorThings)                                \
    SECTION(Route, "")                                                                                   \
    TOOL(drawAlignment) TOOL(alignmentFromLines) TOOL(alignmentFromLine) COMMAND("alignment-reverse")    \
    COMMAND("marking-read")                                                                              \
    SECTION(Route, "Design")                                                                             \
    COMMAND("profile") COMMAND("profile-through-points") COMMAND("criteria-lanes")                       \
    COMMAND("criteria-read")                                                                             \
    SECTION(Route, "Stations")                                                                           \
    COMMAND("cross-sections") COMMAND("points-by-station") COMMAND("stations") COMMAND("points-tie")     \
    COMMAND("points-by-offset")                                                                          \
    SECTION(Record, "")                                                                                  \
    COMMAND("export")                                                                                    \
    SECTION(Record, "Parcels")                                                                           \
    TOOL(parcelFromLine) TOOL(parcelInside) TOOL(splitParcel) COMMAND("describe") COMMAND("closure") COMMAND("wording-read") COMMAND("read-back")                \
    COMMAND("read-back-file")                                                                            \
    SECTION(Record, "Labels")                                                                            \
    TOOL(label) TOOL(labelMany) TOOL(textsInPlace) COMMAND("relabel") COMMAND("label-style")             \
    SECTION(Record, "Dimensions")                                                                        \
    TOOL(dimension) COMMAND("dimension-style")                                                           \
    SECTION(Record, "Tables and sheets")                                                                 \
    COMMAND("new-table") COMMAND("sheet") COMMAND("sheet-open") COMMAND("sheets-along") COMMAND("sheet-export") \
    EVERYWHERE(measure)
// clang-format on

#define ERDWERK_NOTHING(...)
#define ERDWERK_DECLARE(name) ToolDeclaration name();
ERDWERK_RACK(ERDWERK_NOTHING, ERDWERK_DECLARE, ERDWERK_NOTHING, ERDWERK_DECLARE)

const std::vector<RackEntry>& rack() {
    static const std::vector<RackEntry> all = [] {
        std::vector<RackEntry> out;
        Stage stage = Stage::Field;
        QString section;
#define ERDWERK_SECTION(ofStage, title) \
    stage = Stage::ofStage;             \
    section = title[0] == '\0' ? QString() : tr(title);
#define ERDWERK_TOOL(name) out.push_back({stage, section, name()});
#define ERDWERK_COMMAND(id) out.push_back({stage, section, QStringLiteral(id)});
#define ERDWERK_EVERYWHERE(name) out.push_back({std::nullopt, tr("On every rack"), name()});
        ERDWERK_RACK(ERDWERK_SECTION, ERDWERK_TOOL, ERDWERK_COMMAND, ERDWERK_EVERYWHERE)
        return out;
    }();
    return all;
}

QString anOpenProject(const Session& session) {
    return session.isOpen() ? QString() : tr("open a project first");
}

QString aParcel(const Session& session) {
    return session.document().all<objects::Parcel>().empty() ? QObject::tr("make a parcel first") : QString();
}

QString aLine(const Session& session) {
    return session.document().all<objects::Line>().empty() ? tr("there are no lines yet") : QString();
}

QString aSurface(const Session& session) {
    return currentSurface(session) ? QString() : tr("there is no surface yet");
}

QString aSurfaceAndALine(const Session& session) {
    const QString reason = aSurface(session);
    return reason.isEmpty() ? aLine(session) : reason;
}

QString aCloud(const Session& session) {
    return session.document().all<objects::Cloud>().empty() ? tr("import a cloud first") : QString();
}

QString denseHeights(const Session& session) {
    return currentDense(session) ? QString() : tr("import a cloud or a raster, or make a surface first");
}

}  // namespace erdwerk::app::tools
