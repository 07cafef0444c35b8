// The actions of the main window: one list, from which rack, menus, finder and keys are made.

#include <QCoreApplication>
#include <QDate>
#include <QDialog>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenuBar>
#include <QMessageBox>

#include "app/plan/plan_painter.h"
#include "app/sheet/sheet_painter.h"
#include "app/shell/aside.h"
#include "app/shell/finder.h"
#include "app/shell/main_window.h"
#include "app/shell/settings_dialog.h"
#include "app/tools/draw_line_tool.h"
#include "app/tools/label_style_dialog.h"
#include "app/tools/stage_tools.h"
#include "core/document/edit.h"

namespace erdwerk::app {

using document::Document;

void MainWindow::buildActions() {
    fileActions();
    fieldActions();
    denseActions();
    groundActions();
    toolActions();
    routeAndRecordActions();
}

void MainWindow::fileActions() {
    const auto needProject = [this] { return session_.isOpen() ? QString() : tr("open a project first"); };
    const QString file = tr("File");
    actions_.add({QStringLiteral("new-from-survey"),
                  tr("New from a survey file…"),
                  tr("Starts a project with the points of a CSV file"),
                  QStringLiteral("import-points"),
                  {},
                  file,
                  {},
                  [this] {
                      if (!askToSave()) return;
                      const QString path = QFileDialog::getOpenFileName(
                          this, tr("Survey file"), {}, tr("Survey points (*.csv *.txt);;All files (*)"));
                      if (path.isEmpty()) return;
                      const bool wasOpen = session_.isOpen();
                      if (!wasOpen) session_.startNew({});
                      importSurvey(path);
                  },
                  {}});
    actions_.add({QStringLiteral("open"),
                  tr("Open…"),
                  tr("Opens a project"),
                  QStringLiteral("import-lines"),
                  {},
                  file,
                  QKeySequence::Open,
                  [this] {
                      if (!askToSave()) return;
                      const QString path = QFileDialog::getOpenFileName(this, tr("Open a project"), {},
                                                                        tr("Erdwerk projects (*.erdwerk)"));
                      if (!path.isEmpty()) openProject(path);
                  },
                  {}});
    actions_.add({QStringLiteral("demo"),
                  tr("Open the demo"),
                  tr("Opens a copy of Quillmoor Observatory"),
                  QStringLiteral("new-surface"),
                  {},
                  file,
                  {},
                  [this] {
                      if (askToSave()) openDemo();
                  },
                  {}});
    actions_.add({QStringLiteral("save"),
                  tr("Save"),
                  tr("Saves the project"),
                  QStringLiteral("export"),
                  {},
                  file,
                  QKeySequence::Save,
                  [this] { save(false); },
                  needProject});
    actions_.add({QStringLiteral("save-as"),
                  tr("Save as…"),
                  tr("Saves the project under another name"),
                  QStringLiteral("export"),
                  {},
                  file,
                  QKeySequence(QStringLiteral("Ctrl+Shift+S")),
                  [this] { save(true); },
                  needProject});
    actions_.add({QStringLiteral("export"), tr("Export…"),
                  tr("Writes LandXML, GeoPackage, GeoJSON, CSV, OBJ or glTF"), QStringLiteral("export"),
                  Stage::Record, file, QKeySequence(QStringLiteral("Ctrl+E")),
                  [this] {
                      const QString path = QFileDialog::getSaveFileName(
                          this, tr("Export"), {},
                          tr("LandXML 1.2 (*.xml);;GeoPackage (*.gpkg);;GeoJSON (*.geojson);;CSV of points "
                             "(*.csv);;OBJ (*.obj);;Binary glTF (*.glb)"));
                      if (!path.isEmpty()) exportTo(path);
                  },
                  needProject});
    actions_.add({QStringLiteral("settings"),
                  tr("Units and display…"),
                  tr("How figures are written in this project"),
                  QStringLiteral("settings"),
                  {},
                  file,
                  QKeySequence(QStringLiteral("Ctrl+,")),
                  [this] { SettingsDialog(session_, this).exec(); },
                  needProject});
    actions_.add({QStringLiteral("quit"),
                  tr("Quit"),
                  tr("Ends Erdwerk"),
                  QStringLiteral("delete"),
                  {},
                  file,
                  QKeySequence::Quit,
                  [this] { close(); },
                  {}});
    const QString edit = tr("Edit");
    actions_.add({QStringLiteral("undo"),
                  tr("Undo"),
                  tr("Takes back the last step, inside a tool too"),
                  QStringLiteral("undo"),
                  {},
                  edit,
                  QKeySequence::Undo,
                  [this] { undo(); },
                  {}});
    actions_.add({QStringLiteral("redo"),
                  tr("Redo"),
                  tr("Does again what was undone"),
                  QStringLiteral("redo"),
                  {},
                  edit,
                  QKeySequence(QStringLiteral("Ctrl+Y")),
                  [this] { redo(); },
                  {}});
    actions_.add(
        {QStringLiteral("delete"),
         tr("Delete"),
         tr("Deletes what is selected"),
         QStringLiteral("delete"),
         {},
         edit,
         {},
         [this] { deleteSelection(); },
         [this] { return session_.selection().empty() ? tr("select something first") : QString(); }});
    actions_.add({QStringLiteral("finder"),
                  tr("Finder"),
                  tr("Finds every tool and every thing by a few letters"),
                  QStringLiteral("finder"),
                  {},
                  edit,
                  QKeySequence(QStringLiteral("Ctrl+K")),
                  [this] {
                      auto* finder = new Finder(actions_, session_, this);
                      finder->setAttribute(Qt::WA_DeleteOnClose);
                      finder->move(mapToGlobal(QPoint((width() - finder->minimumWidth()) / 2, 90)));
                      finder->show();
                      finder->entry()->setFocus();
                  },
                  {}});
    const QString view = tr("View");
    actions_.add({QStringLiteral("fit"),
                  tr("Fit all"),
                  tr("Shows everything in the plan and in 3D"),
                  QStringLiteral("fit"),
                  {},
                  view,
                  QKeySequence(QStringLiteral("Ctrl+0")),
                  [this] {
                      plan_->fit();
                      scene_->fit();
                  },
                  needProject});
    const auto twin = [this](const char* id, const QString& text, const QString& help, const char* key,
                             TwinViews::Twin which) {
        const QString name = QString::fromLatin1(id);
        actions_.add(
            {name,
             text,
             help,
             QStringLiteral("twin"),
             {},
             tr("View"),
             QKeySequence(QString::fromLatin1(key)),
             [this, which] { views_->setTwin(views_->twin() == which ? TwinViews::Twin::None : which); },
             [this] { return session_.isOpen() ? QString() : tr("open a project first"); }});
    };
    twin("twin", tr("3D twin view"), tr("Shows or hides the 3D view beside the plan"), "Ctrl+T",
         TwinViews::Twin::Scene);
    twin("twin-plan", tr("Source and surface side by side"),
         tr("Two plans in step: the surface in one, its source in the other, faded over each other"),
         "Ctrl+Shift+T", TwinViews::Twin::Plan);
    actions_.add({QStringLiteral("in-step"),
                  tr("Keep both views in step"),
                  tr("The plan and its twin show the same place at the same scale, or each its own"),
                  QStringLiteral("twin"),
                  {},
                  view,
                  {},
                  [this] {
                      views_->setInStep(!views_->inStep());
                      say(views_->inStep() ? tr("Both views move together") : tr("Each view moves alone"),
                          false);
                  },
                  needProject});
    for (const double factor : {1.0, 2.0, 5.0})
        actions_.add({QStringLiteral("exaggerate-%1").arg(factor),
                      tr("3D heights × %1").arg(factor),
                      tr("Vertical exaggeration of the 3D view"),
                      QStringLiteral("twin"),
                      {},
                      view,
                      {},
                      [this, factor] { scene_->setExaggeration(factor); },
                      needProject});
}

void MainWindow::fieldActions() {
    const auto needProject = [this] { return session_.isOpen() ? QString() : tr("open a project first"); };
    const QString menu = stageName(Stage::Field);
    actions_.setSection(tr("Points and lines"));
    actions_.add({QStringLiteral("import-points"), tr("Import survey points…"),
                  tr("Reads points from a CSV file, through a preview"), QStringLiteral("import-points"),
                  Stage::Field, menu, QKeySequence(QStringLiteral("I")),
                  [this] {
                      const QString path = QFileDialog::getOpenFileName(
                          this, tr("Survey file"), {}, tr("Survey points (*.csv *.txt);;All files (*)"));
                      if (!path.isEmpty()) importSurvey(path);
                  },
                  needProject});
    actions_.add(
        {QStringLiteral("import-lines"), tr("Import 3D lines…"),
         tr("Reads lines with their heights from any vector file, or LandXML"),
         QStringLiteral("import-lines"), Stage::Field, menu, QKeySequence(QStringLiteral("L")),
         [this] {
             const QString path = QFileDialog::getOpenFileName(
                 this, tr("Vector file"), {},
                 tr("Vector files (*.gpkg *.geojson *.json *.shp *.gml *.xml *.ply);;All files (*)"));
             if (!path.isEmpty()) importLines(path);
         },
         needProject});
    const auto needPoints = [this] {
        ObjectId set;
        return selectedPoints(set).size() > 1 ? QString()
                                              : tr("select at least two survey points, or a whole set");
    };
    actions_.add({QStringLiteral("connect-number"), tr("Connect by number"),
                  tr("Joins the selected points into a line in the order of their numbers"),
                  QStringLiteral("connect"), Stage::Field, menu, QKeySequence(QStringLiteral("N")),
                  [this] { connectPoints(false); }, needPoints});
    actions_.add({QStringLiteral("connect-code"), tr("Connect by code"),
                  tr("Makes one line for each code among the selected points"), QStringLiteral("connect"),
                  Stage::Field, menu, QKeySequence(QStringLiteral("C")), [this] { connectPoints(true); },
                  needPoints});
}

void MainWindow::pickAction(const char* name, const QString& text, const QString& help, Stage stage,
                            const QString& key, const std::function<QString()>& whyNot) {
    const QString id = QString::fromLatin1(name);
    actions_.add({id, text, help, id, stage, stageName(stage), QKeySequence(key),
                  [this, id] { setTool(std::make_unique<PickTool>(session_, pickSpec(id)), id); }, whyNot});
}

void MainWindow::toolActions() {
    const auto surfaceThere = [this] {
        return currentSurface(session_) ? QString() : tr("there is no surface yet");
    };
    const auto linesThere = [this] {
        return session_.document().all<document::Line>().empty() ? tr("there are no lines yet") : QString();
    };
    const auto projectOpen = [this] { return session_.isOpen() ? QString() : tr("open a project first"); };
    actions_.add({QStringLiteral("draw-line"), tr("Draw 3D line"),
                  tr("Draws a line corner by corner, clicked or typed, with a height rule at each"),
                  QStringLiteral("draw-line"), Stage::Shape, stageName(Stage::Shape),
                  QKeySequence(QStringLiteral("D")),
                  [this] { setTool(std::make_unique<DrawLineTool>(session_), QStringLiteral("draw-line")); },
                  projectOpen});
    pickAction("drape", tr("Drape a line"),
               tr("Lays a line on the surface, with a grade point at each triangle edge"), Stage::Shape,
               QStringLiteral("P"), [this, surfaceThere, linesThere] {
                   const QString reason = surfaceThere();
                   return reason.isEmpty() ? linesThere() : reason;
               });
    pickAction("corner-insert", tr("Insert a corner"), tr("Puts a corner onto a line"), Stage::Shape,
               QStringLiteral("I"), linesThere);
    pickAction("grade-insert", tr("Insert a grade point"), tr("Puts a height control between corners"),
               Stage::Shape, QStringLiteral("G"), linesThere);
    pickAction("move-vertex", tr("Move a corner"), tr("Moves a corner to a clicked or typed place"),
               Stage::Shape, QStringLiteral("M"), linesThere);
    pickAction("vertex-remove", tr("Delete a corner"), tr("Deletes a corner or grade point"), Stage::Shape,
               QStringLiteral("E"), linesThere);
    pickAction("split", tr("Split a line"), tr("Cuts a line in two"), Stage::Shape, QStringLiteral("S"),
               linesThere);
    pickAction("join", tr("Join lines"), tr("Makes two lines one, at their nearest ends"), Stage::Shape,
               QStringLiteral("J"), linesThere);
    pickAction("reverse", tr("Reverse a line"), tr("Turns the direction round; heights and grades stay"),
               Stage::Shape, QStringLiteral("R"), linesThere);
    pickAction("close-line", tr("Close a line"), tr("Joins the end of a line to its start"), Stage::Shape,
               QStringLiteral("C"), linesThere);
    pickAction("alignment", tr("Alignment from a line"),
               tr("Gives a line of straights and arcs its stationing"), Stage::Route, QStringLiteral("A"),
               linesThere);
    pickAction("parcel", tr("Parcel from a line"),
               tr("Courses, area, closure and description of a closed line"), Stage::Record,
               QStringLiteral("P"), linesThere);
    pickAction("label", tr("Label"), tr("Labels a side, a curve or a survey point; it follows the geometry"),
               Stage::Record, QStringLiteral("L"), projectOpen);
}

void MainWindow::routeAndRecordActions() {
    const auto alignmentChosen = [this] {
        return session_.selected<document::Alignment>() ? QString() : tr("select an alignment first");
    };
    const auto projectOpen = [this] { return session_.isOpen() ? QString() : tr("open a project first"); };
    actions_.add({QStringLiteral("alignment-reverse"), tr("Reverse the alignment"),
                  tr("Stationing runs the other way"), QStringLiteral("reverse"), Stage::Route,
                  stageName(Stage::Route), QKeySequence(QStringLiteral("R")),
                  [this] {
                      session_.apply(tr("Reverse an alignment"),
                                     document::changed<document::Alignment>(
                                         session_.document(), *session_.selected<document::Alignment>(),
                                         [](document::Alignment& a) { a.reversed = !a.reversed; }));
                  },
                  alignmentChosen});
    actions_.add({QStringLiteral("profile"), tr("New profile"),
                  tr("The ground along an alignment, with a design over it"), QStringLiteral("profile"),
                  Stage::Route, stageName(Stage::Route), QKeySequence(QStringLiteral("P")),
                  [this] {
                      const auto& d = session_.document();
                      const auto alignments = d.all<document::Alignment>();
                      const auto on = session_.selected<document::Alignment>().value_or(alignments.back());
                      ObjectId id;
                      const auto next = d.added(document::freshName<document::Profile>(d, "Profile"),
                                                document::Profile{on, currentSurface(session_), {}, 5}, &id);
                      session_.apply(tr("New profile"), next);
                      session_.select({{id, std::nullopt}});
                      bench_->setCurrentWidget(profile_);
                  },
                  [this] {
                      return session_.document().all<document::Alignment>().empty()
                                 ? tr("make an alignment first")
                                 : QString();
                  }});
    actions_.add({QStringLiteral("label-style"), tr("Label styles…"),
                  tr("Fields, decimals, prefix, above or below"), QStringLiteral("label-style"),
                  Stage::Record, stageName(Stage::Record), QKeySequence(QStringLiteral("S")),
                  [this] { LabelStyleDialog(session_, this).exec(); }, projectOpen});
    actions_.add({QStringLiteral("sheet"), tr("New sheet"), tr("A plan sheet round what the plan shows now"),
                  QStringLiteral("sheet"), Stage::Record, stageName(Stage::Record),
                  QKeySequence(QStringLiteral("N")), [this] { newSheet(); }, projectOpen});
    actions_.add({QStringLiteral("sheet-export"), tr("Sheet to PDF or SVG…"),
                  tr("Writes the selected sheet, or the only one"), QStringLiteral("export"), Stage::Record,
                  stageName(Stage::Record), QKeySequence(QStringLiteral("W")), [this] { exportSheet(); },
                  [this] {
                      return session_.document().all<document::Sheet>().empty() ? tr("make a sheet first")
                                                                                : QString();
                  }});
}

void MainWindow::buildMenus() {
    QHash<QString, QMenu*> menus;
    for (const Action& a : actions_.all()) {
        if (!menus.contains(a.menu)) menus[a.menu] = menuBar()->addMenu(a.menu);
        auto* item = menus[a.menu]->addAction(a.text);
        item->setStatusTip(a.help);
        // Single letters act in the plan only; they are shown, not bound.
        const bool letter = a.key.count() == 1 && a.key[0].keyboardModifiers() == Qt::NoModifier;
        if (letter)
            item->setText(a.text + QStringLiteral("\t") + a.key.toString());
        else
            item->setShortcut(a.key);
        connect(item, &QAction::triggered, this, [this, id = a.id] { actions_.run(id); });
    }
    // What cannot run now is grey in the menu as well.
    for (QMenu* menu : menus)
        connect(menu, &QMenu::aboutToShow, this, [this, menu] {
            for (QAction* item : menu->actions())
                for (const Action& a : actions_.all())
                    if (item->text().section(QLatin1Char('\t'), 0, 0) == a.text && a.menu == menu->title())
                        item->setEnabled(!a.whyNot || a.whyNot().isEmpty());
        });
    for (QMenu* menu : menus)
        connect(menu, &QMenu::aboutToHide, this, [menu] {
            for (QAction* item : menu->actions()) item->setEnabled(true);
        });
}

}  // namespace erdwerk::app
