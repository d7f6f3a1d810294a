// SPDX-License-Identifier: GPL-3.0-or-later
//! The design in hand: its undo history, its assessment, the pinned baseline, and how it is looked at.
#pragma once

#include <QObject>
#include <QString>
#include <QTimer>
#include <filesystem>
#include <functional>
#include <optional>
#include <vector>

#include "app/document/background.h"
#include "app/document/recovery.h"
#include "app/tongue.h"
#include "core/assess/assess.h"
#include "core/assess/tolerance.h"
#include "core/io/project_file.h"

namespace kranich::logic {
struct Fitted;
}

namespace kranich::app {

class Journal;

//! How a file is taken in hand: to be saved again, to look at only, or as a copy that has no file yet.
enum class OpenAs { itself, read_only, copy };
//! Why a project is for reading only, if it is.
enum class ReadOnly { no, newer, open_elsewhere };

class Document : public QObject {
  Q_OBJECT
 public:
  using Change = std::function<void(Design&)>;

  explicit Document(QObject* parent = nullptr);
  ~Document() override;

  const Design& design() const { return design_; }
  const Assessment& assessment() const { return assessment_; }
  UnitSystem units() const { return design_.units; }
  //! A value with its unit, as this project counts.
  QString say(double si, Kind kind) const {
    return with_decimal_mark(QString::fromStdString(format_quantity(si, kind, design_.units)));
  }
  //! The same without the unit, where a heading tells it.
  QString say_number(double si, Kind kind) const {
    return with_decimal_mark(QString::fromStdString(format_number(si, kind, design_.units)));
  }
  QString unit(Kind kind) const;

  // --- editing: every change is one step of undo ---
  void edit(const QString& what, const Change& change);
  //! A drag: the design follows, one step of undo is made at its end; cancel brings the start back.
  void begin_drag(const QString& what);
  void drag(const Change& change);  //!< applied to the design as it was at the drag's start
  void end_drag();
  void cancel_drag();
  const Design* before_drag() const { return drag_start_ ? &*drag_start_ : nullptr; }
  const Assessment* assessment_before_drag() const { return drag_start_ ? &drag_assessment_ : nullptr; }
  void undo();
  void redo();
  QString undo_text() const;
  QString redo_text() const;

  // --- file ---
  //! `book`: the text of the Book that goes with it where none lies beside its file.
  void start(Design design, const QString& path, ReadOnly read_only = ReadOnly::no,
             const std::string& book = {});
  //! Opens a file; the faults if it has any, and then nothing changes.
  std::vector<Fault> open(const QString& path, OpenAs as = OpenAs::itself);
  std::optional<QString> save(const QString& path);
  //! Whether the file in hand has been changed by somebody else since it was read or saved. One that is gone
  //! has not.
  bool changed_outside() const;
  QString path() const { return path_; }
  bool modified() const { return modified_; }
  bool read_only() const { return read_only_ != ReadOnly::no; }
  bool from_older() const { return from_older_; }  //!< the file in hand is of an earlier version

  // --- what was done: beside the design ---
  Journal& journal() { return *journal_; }
  //! The Book has an entry that no file holds yet.
  void note_unsaved_book();

  // --- pinned design ---
  void pin();
  void unpin();
  const Design* pinned() const { return pinned_ ? &*pinned_ : nullptr; }
  const Assessment* pinned_assessment() const { return pinned_ ? &pinned_assessment_ : nullptr; }

  // --- build tolerances: worked out in the background whenever the design rests ---
  //! Of the design as it is; null while it is worked out.
  const ToleranceResult* tolerances() const { return tolerances_ ? &*tolerances_ : nullptr; }
  const Spread* spread_of(const Finding& finding) const;
  //! Whether the logic is being proved, and how far.
  bool proving() const { return proof_work_.running(); }
  double proof_progress() const { return proof_work_.share(); }
  double tolerance_progress() const { return tolerance_work_.share(); }
  bool tolerance_running() const { return tolerance_work_.running(); }
  void cancel_tolerances();
  void start_tolerances();

  // --- variants laid over the drawings ---
  struct Laid {
    QString name;
    Design design;
    Assessment assessment;
  };
  const std::vector<Laid>& laid_over() const { return laid_; }
  void lay_over(std::vector<Laid> variants);

  // --- how it is looked at (not part of the design) ---
  QString loading_name() const { return loading_; }
  //! Counts whatever changes what there is to see: for caches keyed by it.
  quint64 revision() const { return revision_; }
  const LoadingState* loading() const { return assessment_.loading(loading_.toStdString()); }
  GearState state() const { return state_; }
  double gear_position() const { return gear_position_; }  //!< 0 down, 1 stowed
  void set_loading(const QString& name);
  void set_state(GearState state);
  void set_gear_position(double share);

  // --- safety copies of unsaved work (recovery.h): removed once it is saved or given up ---
  //! Takes up work left behind, as work on the file it belongs to. Its copy goes only when this document has
  //! written one of its own. The faults where it cannot be read; then nothing changes.
  std::vector<Fault> recover(const LeftBehind& left);
  //! Writes the safety copy now, if there is anything unsaved, and leaves it for the next start: what a
  //! signal does.
  void leave_for_next_start();
  const std::filesystem::path& recovery_file() const { return recovery_.file(); }

 signals:
  void started();       //!< another project is in hand
  void legs_changed();  //!< there are other legs than before, or they stand elsewhere: pages are built anew
  void changed();       //!< the design, and so everything
  void proof_got_on();
  void tolerances_changed();  //!< begun, got on, finished, or called off
  void view_changed();        //!< loading, state or gear position only
  void file_changed();        //!< path, modified, read-only
  void refused(const QString& why);
  void entry_wanted(const QString& path);  //!< somebody clicked on the name of a number that is missing

 private:
  struct Step {
    QString what;
    Design design;
  };
  void assess_now();
  void prove(const logic::Fitted& fitted);
  //! What is shown follows the design: its assessment, its legs, all who listen.
  void show_change();
  std::vector<std::string> legs_now() const;
  std::filesystem::path folder() const;  //!< in which the project's file lies; empty: it has none
  void say_refused(const std::vector<Fault>& faults);
  void keep_for_undo(const QString& what, Design design);
  void drop_tolerances();
  void note_modified(bool modified);
  bool autosave();

  Design design_;
  Assessment assessment_;
  std::vector<Step> undo_, redo_;
  std::optional<Design> drag_start_;
  Assessment drag_assessment_;
  QString drag_text_;
  std::optional<Design> pinned_;
  Assessment pinned_assessment_;
  QString path_, loading_;
  GearState state_ = GearState::static_load;
  double gear_position_ = 0;
  bool modified_ = false;
  ReadOnly read_only_ = ReadOnly::no;
  QString why_read_only() const;
  bool from_older_ = false;
  QTimer autosave_timer_;
  std::optional<ToleranceResult> tolerances_;
  Background tolerance_work_;
  Background proof_work_;
  QTimer tolerance_timer_;
  std::vector<Laid> laid_;
  quint64 revision_ = 1;
  std::vector<std::string> legs_shown_;  //!< what the pages are built for: legs and doors
  RecoveryCopy recovery_;
  bool copy_failed_ = false;  //!< said once, until it works again
  std::string file_state_;    //!< of the file in hand when it was read or saved
  std::unique_ptr<Journal> journal_;
};

}  // namespace kranich::app
