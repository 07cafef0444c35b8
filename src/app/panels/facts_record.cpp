// Facts of alignments, profiles, parcels, labels and sheets.

#include "app/panels/facts.h"
#include "core/base/notation.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {
QString text(const std::string& s) {
    return QString::fromStdString(s);
}
}  // namespace

void Facts::alignment(ObjectId id) {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    const auto* payload = document.get<objects::Alignment>(id);
    heading(text(document.nameOf(id)));
    entry(tr("Name"), text(document.nameOf(id)),
          [id](const Document& d, const QString& t) -> Result<Document> {
              return operations::rename(d, id, t.trimmed().toStdString());
          });
    entry(tr("Start station"), text(formatStation(payload->startStation, display)),
          [id](const Document& d, const QString& t) -> Result<Document> {
              const auto station = parseStation(t.toStdString(), d.settings().display);
              if (!station) return tl::unexpected(station.error());
              return document::changed<objects::Alignment>(
                  d, id, [&](objects::Alignment& a) { a.startStation = *station; });
          });
    number(tr("Tick interval"), payload->tickInterval, 0.01, [id](const Document& d, double v) {
        return document::changed<objects::Alignment>(d, id,
                                                     [v](objects::Alignment& a) { a.tickInterval = v; });
    });
    check(tr("Against the line's direction"), payload->reversed, [id](const Document& d, bool on) {
        return document::changed<objects::Alignment>(d, id, [on](objects::Alignment& a) { a.reversed = on; });
    });
    const auto* a = derive::Derived::in(session_.derived().alignments, id);
    if (a == nullptr) return;
    fact(tr("Length"), text(formatLength(a->length, display)));
    fact(tr("End station"), text(formatStation(a->endStation(), display)));
    fact(tr("Not tangent"), a->breaks.empty() ? tr("none") : tr("%1 of the joints").arg(a->breaks.size()));
    heading(tr("Points"));
    for (const auto& key : a->keyPoints)
        fact(QString::fromUtf8(route::shortName(key.kind).data()), text(formatStation(key.station, display)));
}

void Facts::profile(ObjectId id) {
    const auto& document = session_.document();
    const auto* payload = document.get<objects::Profile>(id);
    heading(text(document.nameOf(id)));
    entry(tr("Name"), text(document.nameOf(id)),
          [id](const Document& d, const QString& t) -> Result<Document> {
              return operations::rename(d, id, t.trimmed().toStdString());
          });
    fact(tr("Alignment"), text(document.nameOf(payload->alignment)));
    fact(tr("PVIs"), QString::number(payload->design.size()));
    objectChoice<objects::Surface>(
        tr("Ground"), payload->ground,
        [id](const Document& d, ObjectId g) {
            return document::changed<objects::Profile>(d, id, [g](objects::Profile& p) { p.ground = g; });
        },
        tr("none"));
}

void Facts::parcel(ObjectId id) {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    const auto* payload = document.get<objects::Parcel>(id);
    heading(text(document.nameOf(id)));
    entry(tr("Name"), text(document.nameOf(id)),
          [id](const Document& d, const QString& t) -> Result<Document> {
              return operations::rename(d, id, t.trimmed().toStdString());
          });
    if (const auto* p = derive::Derived::in(session_.derived().parcels, id)) {
        fact(tr("Area"), text(formatArea(p->geometry.area, display)));
        fact(tr("Perimeter"), text(formatLength(p->geometry.perimeter, display)));
        fact(tr("Closure"), p->geometry.closure.closes(display.unit)
                                ? tr("closes")
                                : text(formatLength(p->geometry.closure.distance, display)) + tr(" open"));
        fact(tr("Courses"), QString::number(p->geometry.courses.size()));
    }
    entry(tr("Beginning"), text(payload->beginning),
          [id](const Document& d, const QString& t) -> Result<Document> {
              return document::changed<objects::Parcel>(
                  d, id, [&](objects::Parcel& p) { p.beginning = t.trimmed().toStdString(); });
          });
    number(tr("Begins at corner"), static_cast<double>(payload->begin + 1), 1,
           [id](const Document& d, double v) {
               return document::changed<objects::Parcel>(
                   d, id, [v](objects::Parcel& p) { p.begin = static_cast<std::size_t>(v) - 1; });
           });
    check(tr("Against the line's direction"), payload->reversed, [id](const Document& d, bool on) {
        return document::changed<objects::Parcel>(d, id, [on](objects::Parcel& p) { p.reversed = on; });
    });
}

void Facts::label(ObjectId id) {
    const auto& document = session_.document();
    const auto* payload = document.get<objects::Label>(id);
    heading(text(document.nameOf(id)));
    fact(tr("Of"), text(document.nameOf(payload->target)));
    if (const auto* l = derive::Derived::in(session_.derived().labels, id)) {
        fact(tr("Above"), text(l->above));
        fact(tr("Below"), text(l->below));
    }
    objectChoice<objects::LabelStyle>(
        tr("Style"), payload->style,
        [id](const Document& d, ObjectId s) {
            return s ? document::changed<objects::Label>(d, id, [s](objects::Label& l) { l.style = s; }) : d;
        },
        tr("–"));
}

void Facts::sheet(ObjectId id) {
    const auto& document = session_.document();
    const auto s = *document.get<objects::Sheet>(id);
    heading(text(document.nameOf(id)));
    const auto edit = [id](const Document& d, const std::function<void(objects::Sheet&)>& change) {
        return document::changed<objects::Sheet>(d, id, change);
    };
    choice(tr("Paper"), {tr("A4"), tr("A3"), tr("A1")}, static_cast<int>(s.paper),
           [edit](const Document& d, int i) {
               return edit(d, [i](auto& x) { x.paper = static_cast<objects::Paper>(i); });
           });
    number(tr("Scale 1 :"), s.scale, 1,
           [edit](const Document& d, double v) { return edit(d, [v](auto& x) { x.scale = v; }); });
    number(tr("Centre E"), s.centre.x, -1e9,
           [edit](const Document& d, double v) { return edit(d, [v](auto& x) { x.centre.x = v; }); });
    number(tr("Centre N"), s.centre.y, -1e9,
           [edit](const Document& d, double v) { return edit(d, [v](auto& x) { x.centre.y = v; }); });
    objectChoice<objects::Parcel>(
        tr("Parcel"), s.parcel,
        [edit](const Document& d, ObjectId p) { return edit(d, [p](auto& x) { x.parcel = p; }); },
        tr("none"));
    heading(tr("Title block"));
    entry(tr("Project"), text(s.project), [edit](const Document& d, const QString& t) -> Result<Document> {
        return edit(d, [&](auto& x) { x.project = t.toStdString(); });
    });
    entry(tr("Title"), text(s.title), [edit](const Document& d, const QString& t) -> Result<Document> {
        return edit(d, [&](auto& x) { x.title = t.toStdString(); });
    });
    entry(tr("Drawn by"), text(s.drawnBy), [edit](const Document& d, const QString& t) -> Result<Document> {
        return edit(d, [&](auto& x) { x.drawnBy = t.toStdString(); });
    });
    entry(tr("Date"), text(s.date), [edit](const Document& d, const QString& t) -> Result<Document> {
        return edit(d, [&](auto& x) { x.date = t.toStdString(); });
    });
}

}  // namespace erdwerk::app
