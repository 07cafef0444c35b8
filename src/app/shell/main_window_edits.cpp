// What the actions of points, lines, surfaces and sheets do.

#include <QDate>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>

#include "app/sheet/sheet_painter.h"
#include "app/shell/main_window.h"
#include "core/document/edit.h"

namespace erdwerk::app {

using document::Document;

std::vector<std::size_t> MainWindow::selectedPoints(ObjectId& set) const {
    std::vector<std::size_t> out;
    for (const Ref& r : session_.selection()) {
        if (session_.document().get<document::Points>(r.object) == nullptr || (set && set != r.object))
            continue;
        set = r.object;
        if (r.part) {
            out.push_back(*r.part);
        } else {
            for (std::size_t i = 0; i < session_.document().get<document::Points>(set)->set.size(); ++i)
                out.push_back(i);
        }
    }
    return out;
}

void MainWindow::connectPoints(bool byCode) {
    ObjectId set;
    const auto members = selectedPoints(set);
    if (members.size() < 2) return;
    Document next = session_.document();
    const auto& points = next.get<document::Points>(set)->set;
    std::vector<std::pair<std::string, survey::Chain>> chains;
    if (byCode)
        chains = survey::chainsByCode(points, members);
    else
        chains.emplace_back(document::freshName<document::Line>(next, "Line"),
                            survey::chainByNumber(points, members));
    if (chains.empty()) return say(tr("No two of these points have the same code"), true);
    std::vector<Ref> made;
    for (const auto& [name, chain] : chains) {
        ObjectId line;
        const std::string title =
            next.byName<document::Line>(name) ? document::freshName<document::Line>(next, name) : name;
        next = document::connectPoints(next, set, chain, title, &line);
        if (line) made.push_back({line, std::nullopt});
    }
    session_.apply(tr("Connect points into %1 lines").arg(made.size()), next);
    session_.select(made);
}

void MainWindow::newSurface() {
    const auto& d = session_.document();
    std::vector<document::Source> sources;
    for (const Ref& r : session_.selection()) {
        if (std::any_of(sources.begin(), sources.end(), [&](const auto& s) { return s.object == r.object; }))
            continue;
        if (d.get<document::Points>(r.object) != nullptr)
            sources.push_back({r.object, document::Role::Points});
        if (d.get<document::Line>(r.object) != nullptr)
            sources.push_back({r.object, document::Role::Breakline});
    }
    if (sources.empty())
        for (const ObjectId id : d.all<document::Points>()) sources.push_back({id, document::Role::Points});
    if (sources.empty())
        for (const ObjectId id : d.all<document::Line>()) sources.push_back({id, document::Role::Breakline});
    ObjectId id;
    const std::string name = d.byName<document::Surface>("Ground")
                                 ? document::freshName<document::Surface>(d, "Surface")
                                 : "Ground";
    const auto next = document::addSurface(d, name, sources, &id);
    session_.apply(tr("New surface"), next);
    session_.select({{id, std::nullopt}});
}

void MainWindow::deleteSelection() {
    Document next = session_.document();
    std::vector<document::PointRef> points;
    for (const Ref& r : session_.selection()) {
        if (next.get<document::Points>(r.object) != nullptr && r.part)
            points.push_back({r.object, *r.part});
        else if (next.find(r.object))
            next = next.without(r.object);
    }
    next = document::removePoints(next, points);
    session_.apply(tr("Delete"), next);
}

void MainWindow::newSheet() {
    const auto& d = session_.document();
    document::Sheet sheet;
    sheet.centre = plan_->view().centre;
    const auto parcels = d.all<document::Parcel>();
    if (const auto chosen = session_.selected<document::Parcel>())
        sheet.parcel = *chosen;
    else if (!parcels.empty())
        sheet.parcel = parcels.front();
    // The next round scale at which what the plan shows fits the paper.
    const auto paper = document::paperSize(sheet.paper);
    const double metres = plan_->view().window().width() * metresPer(d.settings().display.unit);
    sheet.scale = roundStep(metres * 1000 / (paper[0] - 112));
    sheet.project = d.settings().name;
    sheet.title = sheet.parcel ? "Plan of " + d.nameOf(sheet.parcel) : "Site plan";
    sheet.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    ObjectId id;
    const auto next = d.added(document::freshName<document::Sheet>(d, "Sheet"), sheet, &id);
    session_.apply(tr("New sheet"), next);
    session_.select({{id, std::nullopt}});
}

void MainWindow::exportSheet() {
    const auto sheets = session_.document().all<document::Sheet>();
    const auto chosen = session_.selected<document::Sheet>().value_or(sheets.front());
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Sheet to PDF or SVG"),
        QString::fromStdString(session_.document().nameOf(chosen)) + QStringLiteral(".pdf"),
        tr("PDF (*.pdf);;SVG (*.svg)"));
    if (path.isEmpty()) return;
    session_.waitForResults();
    const auto done = writeSheet(path, *session_.snapshot(), chosen);
    if (!done)
        QMessageBox::warning(this, tr("Not written"), QString::fromStdString(done.error().message()));
    else
        say(tr("Written to %1").arg(QFileInfo(path).fileName()), false);
}

}  // namespace erdwerk::app
