#pragma once
// Volumes: cut and fill between two surfaces, by region, as a map in the plan and as a report.

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QTableWidget>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/plan/cut_fill.h"
#include "core/base/id.h"
#include "core/derive/volume_report.h"

namespace erdwerk::app {

class VolumesPage : public BenchPage {
    Q_OBJECT
public:
    explicit VolumesPage(Session& session, QWidget* parent = nullptr);
    ~VolumesPage() override;
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] bool isWorking() const;
    /// Writes a report (.html) or the table (.csv, .xlsx).
    Result<void> exportTo(const QString& path) const;
    void choose(ObjectId from, ObjectId to);
    void showMap(bool on) { map_->setChecked(on); }

Q_SIGNALS:
    void exportPressed();
    void mapChanged(std::shared_ptr<const CutFillLayer> layer);  ///< null: no map

private:
    struct Request {
        SnapshotPointer snapshot;
        derive::VolumeRequest what;
    };
    struct Answer {
        derive::VolumeRequest what;
        std::shared_ptr<const derive::VolumeResult> result;  ///< null: `problem` says why
        std::string problem;
    };
    QLayout* buildBar();
    void startWorker();
    void refresh();
    void fillChoices();
    void ask();
    void show(Answer answer);
    void publishMap();

    Session& session_;
    QComboBox* from_;
    QComboBox* to_;
    QComboBox* regions_;
    QCheckBox* map_;
    QLabel* note_;
    QTableWidget* table_;
    Answer shown_;
    std::vector<std::shared_ptr<const void>> of_;  ///< what the shown answer depends on
    std::unique_ptr<LatestWorker<Request, Answer>> worker_;
};

}  // namespace erdwerk::app
