// What is typed while a line is drawn.

#include "app/tools/draw_line.h"
#include "core/operations/lines.h"

namespace erdwerk::app {

using linework::HeightRule;

bool DrawLineTool::refuse(const QString& reason) {
    Q_EMIT failed(reason);
    return false;
}

bool DrawLineTool::enterPlace(const PlaceEntry& entry) {
    if (const auto* to = std::get_if<TypedPosition>(&entry); to != nullptr && isMending()) {
        mend({to->easting, to->northing},
             to->height ? std::optional<HeightRule>(linework::FixedHeight{*to->height}) : std::nullopt);
        return true;
    }
    if (const auto* course = std::get_if<TypedCourse>(&entry)) {
        if (isMending()) {
            // From the corner before the one that is put right.
            if (*mending_ == 0) return refuse(tr("The first drawn corner is put right by a place: E, N"));
            mend(
                state_.drawn[*mending_ - 1].place + geometry::directionOf(course->azimuth) * course->distance,
                std::nullopt);
            return true;
        }
        const auto from = origin();
        if (!from) {
            Q_EMIT failed(tr("A course needs a corner to start from"));
            return false;
        }
        Snap snap;
        snap.place = *from + geometry::directionOf(course->azimuth) * course->distance;
        addCorner(snap.place, ruleFor(snap));
        return true;
    }
    const auto& position = std::get<TypedPosition>(entry);
    Snap snap;
    snap.place = {position.easting, position.northing};
    addCorner(snap.place,
              position.height ? HeightRule{linework::FixedHeight{*position.height}} : ruleFor(snap));
    return true;
}

bool DrawLineTool::enterSide(const QString& rest) {
    NextSide side;
    side.how = NextSide::How::Tangent;
    if (rest == tr("through")) {
        side.how = NextSide::How::Through;
    } else if (!rest.isEmpty()) {
        const auto radius = typedFigure(rest);
        if (!radius || *radius == 0)
            return refuse(tr("Type arc, arc 25 (to the right), arc -25 (to the left) or arc through"));
        side = {NextSide::How::Radius, *radius, std::nullopt};
    }
    if (line().vertices.empty()) return refuse(tr("Set the corner where the arc begins first"));
    if (side.how == NextSide::How::Tangent && line().vertices.size() < 2)
        return refuse(tr("An arc needs a side before it to be tangent to"));
    next_ = side;
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::enterHeld(const QString& word, const QString& rest) {
    if (!origin()) return refuse(tr("Set the first corner first"));
    if (word == tr("next")) {
        const auto rule = operations::typedRule(session_.document(), rest.toStdString());
        if (!rule) return refuse(QString::fromStdString(rule.error().text));
        held_.rule = *rule;
    } else if (word == tr("len")) {
        const auto length = typedFigure(rest);
        if (!length || !(*length > 0)) return refuse(tr("Type a length above 0"));
        held_.length = *length;
    } else {
        const auto& display = session_.document().settings().display;
        auto course = parsePlaceEntry((rest + QStringLiteral(" 1")).toStdString(), display);
        if (!course || !std::holds_alternative<TypedCourse>(*course))
            course =
                parsePlaceEntry((QStringLiteral("az ") + rest + QStringLiteral(" 1")).toStdString(), display);
        if (!course || !std::holds_alternative<TypedCourse>(*course))
            return refuse(tr("Type a bearing or an azimuth behind dir"));
        held_.direction = std::get<TypedCourse>(*course).azimuth;
    }
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::enterWord(const QString& word, const QString& rest) {
    if (word == tr("arc")) return enterSide(rest);
    if (word == tr("straight")) {
        next_ = {};
    } else if (word == tr("close")) {
        if (state_.continues || state_.drawn.size() < 3)
            return refuse(tr("A closed line needs three corners, and begins where it ends"));
        remember();
        mending_.reset();
        state_.closed = true;
        complete();
        return true;
    } else if (word == tr("smooth")) {
        if (state_.continues) return refuse(tr("A line that is continued is made smooth when it is done"));
        remember();
        state_.smooth = !state_.smooth;
    } else {
        const auto height = typedFigure(rest);
        if (!height) return refuse(tr("Type the height of the level edge behind level"));
        if (state_.continues) return refuse(tr("A level edge is a closed line of its own"));
        remember();
        state_.level = *height;
        for (auto& corner : state_.drawn) corner.rule = linework::FixedHeight{*height};
    }
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::enter(const QString& text) {
    const QString plain = text.trimmed();
    const QString word = plain.section(QLatin1Char(' '), 0, 0).toLower();
    const QString rest = plain.section(QLatin1Char(' '), 1).trimmed();
    for (const QString& held : {tr("len"), tr("dir"), tr("next")})
        if (word == held && !rest.isEmpty()) return enterHeld(word, rest);
    for (const QString& known : {tr("arc"), tr("straight"), tr("close"), tr("smooth"), tr("level")})
        if (word == known) return enterWord(word, rest.toLower());
    const auto place = parsePlaceEntry(text.toStdString(), session_.document().settings().display);
    if (place) return enterPlace(*place);
    return enterRule(text);
}

bool DrawLineTool::enterRule(const QString& text) {
    const auto rule = operations::typedRule(session_.document(), text.toStdString());
    if (!rule) return refuse(QString::fromStdString(rule.error().text));
    if (state_.drawn.empty())
        return refuse(state_.continues ? tr("Draw the next corner before its height")
                                       : tr("Set the first corner before its height"));
    const std::size_t at = isMending() ? *mending_ : state_.drawn.size() - 1;
    if (!state_.continues && at == 0 && isRelative(*rule))
        return refuse(tr("The first corner has no corner before it to rise from"));
    remember();
    state_.drawn[at].rule = *rule;
    mending_.reset();
    Q_EMIT changed();
    return true;
}

}  // namespace erdwerk::app
