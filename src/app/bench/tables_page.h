#pragma once
// Tables: survey points, the courses and description of a parcel, bands, and what the running tool is about
// to do.

#include <QComboBox>
#include <QPlainTextEdit>
#include <QStackedWidget>
#include <QTableView>
#include <QTableWidget>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/plan/tool.h"

class QPushButton;

namespace erdwerk::app {

class ParcelPane;
class PiTable;
class PointModel;
class ReadingPane;
class RecordTable;
class StationTable;

class TablesPage : public BenchPage {
    Q_OBJECT
public:
    explicit TablesPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableView* points() { return points_; }
    [[nodiscard]] QTableWidget* toolTable() { return tool_; }
    [[nodiscard]] PiTable* piTable() { return pis_; }
    /// Of the running tool; it is shown while there is one.
    void setToolTable(std::optional<ToolTable> table);
    [[nodiscard]] QPlainTextEdit* description();
    [[nodiscard]] ParcelPane* parcelPane() { return parcel_; }
    [[nodiscard]] ReadingPane* readingPane() { return reading_; }
    [[nodiscard]] StationTable* stationTable() { return stations_; }
    [[nodiscard]] RecordTable* recordTable() { return record_; }
    /// Stations and offsets along an alignment.
    void showStations(ObjectId alignment);
    /// The stations, or the table of the record, as CSV or XLSX.
    Result<void> exportTo(const QString& path) const;

Q_SIGNALS:
    void exportPressed();

private:
    QWidget* buildPoints();
    QWidget* buildBands();
    /// Shows the table of what is selected.
    void follow();
    void refresh();
    QWidget* buildTool();
    void showBands(const derive::BandTable& table);
    void fillChoice(const QVariant& before);

    Session& session_;
    QComboBox* choice_;
    QStackedWidget* stack_;
    QTableView* points_;
    PointModel* model_;
    ParcelPane* parcel_;
    ReadingPane* reading_;
    QTableWidget* bands_;
    QTableWidget* tool_;
    PiTable* pis_;
    StationTable* stations_;
    RecordTable* record_;
    QPushButton* export_;
    std::optional<ToolTable> offered_;
    bool chosen_ = false;  ///< by hand, since the selection changed
};

}  // namespace erdwerk::app
