#include "app/kinds/profile_section.h"

#include <algorithm>

#include "app/base/theme.h"
#include "core/derive/route_result.h"
#include "core/objects/profile.h"

namespace erdwerk::app {

namespace {

QString words(const std::string& s) {
    return QString::fromStdString(s);
}

SectionSeries seriesOf(const QString& name, const QColor& colour, bool dashed,
                       const std::vector<route::ProfilePoint>& ground) {
    SectionSeries out{name, colour, 1.5, dashed, {}};
    for (const auto& g : route::straightened(ground, 0.001)) out.points.push_back({g.station, g.height});
    return out;
}

/// Cut finely enough for the screen where it is whole, else its PVIs.
SectionSeries designSeries(const std::vector<route::Pvi>& pvis) {
    SectionSeries design{QObject::tr("Design"), theme::alignment, 2, false, {}};
    if (pvis.size() > 1 && route::validate(pvis)) {
        // Straights are straight; curves in 24 pieces.
        for (std::size_t i = 0; i < pvis.size(); ++i) {
            const double half = pvis[i].curveLength / 2;
            const int pieces = half > 0 ? 24 : 0;
            for (int k = 0; k <= pieces; ++k) {
                const double s =
                    pieces == 0 ? pvis[i].station : pvis[i].station - half + 2 * half * k / pieces;
                if (const auto d = route::designAt(pvis, s)) design.points.push_back({s, d->height});
            }
        }
    } else {
        for (const auto& pvi : pvis) design.points.push_back({pvi.station, pvi.height});
    }
    return design;
}

void addGrounds(SectionData& out, const derive::Derived& derived, const objects::Profile& profile,
                const derive::ProfileResult& result) {
    const auto& document = derived.document;
    out.shadeDifference = !out.series.empty();
    out.series.push_back(seriesOf(
        profile.across.empty() ? words(document.nameOf(profile.ground)) : QObject::tr("Lines across"),
        theme::contourIndex, false, result.ground));
    for (const auto& other : result.others)
        out.series.push_back(
            seriesOf(words(document.nameOf(other.surface)), theme::spruce, true, other.points));
    out.empty = words(result.problem);
}

void addHandles(SectionData& out, const std::vector<route::Pvi>& design, const std::vector<route::Pvi>& laid,
                const DisplaySettings& display) {
    const auto figures = route::figures(design);
    for (std::size_t i = 0; i < design.size(); ++i) {
        // Beside a stretch on the ground a PVI lies on it, too.
        const auto on = route::designAt(laid, design[i].station);
        const bool ground = design[i].onGround || (i > 0 && design[i - 1].onGround);
        const double height = ground && on ? on->height : design[i].height;
        QString text = words(formatHeight(height, display));
        if (design[i].onGround)
            text += QObject::tr("  on the ground →");
        else if (figures[i].gradeOut)
            text += QStringLiteral("  ") + words(formatGrade(*figures[i].gradeOut, display)) +
                    (design[i].locked ? QObject::tr(" locked →") : QStringLiteral(" →"));
        out.handles.push_back({design[i].station, height, text, true, true});
        if (const auto turning = route::highLowAt(design, i))
            out.marks.push_back({turning->station, turning->height,
                                 words(formatHeight(turning->height, display)), figures[i].crest});
    }
}

void addRows(SectionData& out, const objects::Profile& profile, const std::vector<route::Pvi>& design,
             const std::vector<route::ProfilePoint>& ground, const route::AlignmentGeometry& alignment,
             double every, const DisplaySettings& display) {
    const auto places = route::profilePlaces(alignment, ground, design, every);
    for (const auto row : profile.rows) {
        SectionRowCells cells{rowText(row), {}};
        const bool stretches = row == route::ProfileRow::Grade || row == route::ProfileRow::Curve;
        if (stretches) {
            for (const auto& s : route::designStretches(design)) {
                if (s.isCurve() != (row == route::ProfileRow::Curve)) continue;
                cells.cells.push_back({s.from, s.to,
                                       s.isCurve()
                                           ? QObject::tr("L %1  K %2")
                                                 .arg(words(formatFixed(*s.length, display.lengthDecimals)),
                                                      words(formatFixed(s.k.value_or(0), 1)))
                                           : words(formatGrade(s.grade, display))});
            }
        } else {
            for (const auto& p : places)
                cells.cells.push_back({p.running, p.running, words(cellText(p, row, display))});
        }
        out.rows.push_back(std::move(cells));
        out.stationsInRows = out.stationsInRows || row == route::ProfileRow::Station;
    }
}

}  // namespace

QString rowText(route::ProfileRow row) {
    switch (row) {
        case route::ProfileRow::Station:
            return QObject::tr("Station");
        case route::ProfileRow::Distance:
            return QObject::tr("Distance");
        case route::ProfileRow::Ground:
            return QObject::tr("Ground");
        case route::ProfileRow::Design:
            return QObject::tr("Design");
        case route::ProfileRow::Cut:
            return QObject::tr("Cut");
        case route::ProfileRow::Fill:
            return QObject::tr("Fill");
        case route::ProfileRow::Grade:
            return QObject::tr("Grade");
        case route::ProfileRow::Curve:
            break;
    }
    return QObject::tr("Curve");
}

QString faultWords(const route::DesignFinding& f, const DisplaySettings& display) {
    using route::DesignFault;
    switch (f.fault) {
        case DesignFault::Crest:
            return QObject::tr("crest K %1, least %2").arg(f.value, 0, 'f', 1).arg(f.limit, 0, 'f', 1);
        case DesignFault::Sag:
            return QObject::tr("sag K %1, least %2").arg(f.value, 0, 'f', 1).arg(f.limit, 0, 'f', 1);
        case DesignFault::Grade:
            return QObject::tr("%1 %, limit %2 %").arg(f.value, 0, 'f', 2).arg(f.limit, 0, 'f', 2);
        case DesignFault::Radius:
            return QObject::tr("radius %1").arg(words(formatLength(f.value, display)));
        case DesignFault::Spiral:
            return QObject::tr("spiral %1").arg(words(formatLength(f.value, display)));
        case DesignFault::CurveLength:
            return QObject::tr("short curve");
        case DesignFault::TangentLength:
            return QObject::tr("short straight");
        case DesignFault::Deflection:
        case DesignFault::NotTangent:
            break;
    }
    return QObject::tr("bare corner");
}

SectionData profileSection(const derive::Derived& derived, ObjectId id, double rowsEvery) {
    SectionData out;
    const auto& document = derived.document;
    const auto* p = document.get<objects::Profile>(id);
    const auto* a = p == nullptr ? nullptr : derive::Derived::in(derived.alignments, p->alignment);
    if (a == nullptr) return out;
    const DisplaySettings display = document.settings().display;
    const auto along = derived.alignments.at(p->alignment);
    out.station = [along, display](double running) {
        return words(formatStation(along->read(running), display));
    };
    out.exaggeration = p->exaggeration;
    out.stretches = true;
    const auto* result = derive::Derived::in(derived.profiles, id);
    const auto& design = derive::designOf(*p, result);
    auto series = designSeries(design);
    if (!series.points.empty()) out.series.push_back(std::move(series));
    if (result != nullptr) addGrounds(out, derived, *p, *result);
    addHandles(out, p->design, design, display);
    if (result != nullptr && rowsEvery > 0) addRows(out, *p, design, result->ground, *a, rowsEvery, display);
    if (const auto* check = derive::Derived::in(derived.designs, p->alignment))
        for (const auto& f : check->findings)
            out.spans.push_back({a->running(f.from), a->running(f.to), faultWords(f, display)});
    return out;
}

}  // namespace erdwerk::app
