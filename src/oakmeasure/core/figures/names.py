"""The names of figures, once: mypy finds a name that is none.

A figure of a part, of a number or of another key is called by `figure_name`, which nothing can check.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal, TypeAlias, cast

if TYPE_CHECKING:  # a union of so many takes a tenth of a second to make
    FigureName: TypeAlias = (
        Literal["added", "air", "anti_lift", "anti_lift_room", "arch", "arch_radius", "area_boards", "area_parts"]
        | Literal[
            "back_off",
            "back_screw",
            "backing",
            "backing_board",
            "band",
            "behind_moulding",
            "between",
            "bevel",
            "bevel_margin",
        ]
        | Literal["board_change_dry", "board_change_wet", "board_cover", "board_end", "board_gap", "board_groove"]
        | Literal[
            "board_most", "board_pitch", "board_thick", "boards", "boards_across", "boards_count", "boards_height"
        ]
        | Literal["boards_laid", "boards_move", "boards_over", "boards_thick", "boards_whole_length", "boards_width"]
        | Literal["bolt", "bolt_apart", "bolt_beside", "bolt_down", "bolt_head", "bolt_in", "bolt_length", "bolt_nut"]
        | Literal["bolt_through", "bolt_width", "both_leaves", "both_stiles", "bottom"]
        | Literal["bottom_muntin_length", "bottom_panel_length"]
        | Literal["bottom_rail", "bottom_rail_core_width", "bottom_rail_old", "bottom_rail_piece", "bow_width"]
        | Literal["brace_angle", "brace_angle_lower", "brace_angle_upper", "brace_blank", "brace_blank_lower"]
        | Literal["brace_blank_upper", "brace_edge", "brace_edge_lower", "brace_edge_upper", "brace_half"]
        | Literal["brace_half_longest", "brace_width", "bush", "butt_across", "butt_closed", "butt_count", "butt_depth"]
        | Literal[
            "butt_from_bottom",
            "butt_from_top",
            "butt_knuckle",
            "butt_leaf",
            "butt_length",
            "butt_metal",
            "butt_rating_kg",
        ]
        | Literal["butt_setback", "butt_spacing", "butt_wood_behind", "centre", "centre_across", "centre_from_edge"]
        | Literal["centre_in"]
        | Literal["centre_up", "change", "check_miss", "cheek_air", "clear_height", "clear_way", "clear_width"]
        | Literal["clear_width_uncertainty", "clear_width_uncertainty_next", "climate_bow", "coefficient", "core"]
        | Literal["core_height", "core_width", "corner_angle", "corner_rise", "cost", "cost_sheet", "cost_timber"]
        | Literal["cost_work", "cup_bored", "cup_boring", "cup_centre", "cup_count", "cup_crank", "cup_depth"]
        | Literal["cup_first", "cup_gives", "cup_last", "cup_left", "cup_overlay", "cup_pattern"]
        | Literal["cup_pattern_wood", "cup_plate", "cup_point"]
        | Literal[
            "cup_radius", "cup_reach", "cup_reveal", "cup_room_needed", "cup_screws", "cup_wood", "cutter", "density"
        ]
        | Literal["depth", "division", "dowel", "dowel_length", "drop", "edge_by", "edging", "edging_sawn", "end_width"]
        | Literal["existing_height", "existing_width", "face", "field_height", "field_height_lower"]
        | Literal["field_height_upper", "field_width", "field_width_lower", "field_width_upper", "fill_rebate"]
        | Literal[
            "fill_thick", "finish_coat", "finish_grams", "finish_takes", "first_stile", "fixing_length", "fixing_stack"
        ]
        | Literal["fixings_count", "floor_fall", "floor_high", "floor_peak", "floor_rise", "floor_slope", "foot_off"]
        | Literal["frame", "frame_thick", "free_wall", "free_wall_needed", "full_height"]
        | Literal["full_width", "gap_between", "gap_floor"]
        | Literal["gap_floor_hinges", "gap_floor_latch", "gap_floor_trimmed", "gap_head", "gap_head_hinges"]
        | Literal["gap_head_latch", "gap_head_trimmed", "gap_hinge", "gap_hinge_foot", "gap_hinge_head"]
        | Literal[
            "gap_hinge_trimmed",
            "gap_latch",
            "gap_latch_foot",
            "gap_let_in_flush",
            "gap_latch_head",
            "gap_latch_trimmed",
            "gap_made",
        ]
        | Literal["gap_meeting", "gap_wanted", "gear_above", "gear_height", "gear_short", "glass_clearance"]
        | Literal["glass_rebate", "glue_across", "glue_clamps", "glue_longest", "glue_open", "glue_stages"]
        | Literal["glued_height", "glued_width", "goes_in", "gravity", "gravity_dry", "greatest_length", "groove_depth"]
        | Literal["grooves", "guide_cheek", "guide_cheek_thick", "guide_depth", "guide_felt", "guide_fin"]
        | Literal["guide_fin_up", "guide_holds", "guide_left", "guide_loose", "guide_over", "guide_plate", "guide_play"]
        | Literal["guide_spacing", "guide_under", "guide_width", "hanger_1", "hanger_2", "hanger_eccentric"]
        | Literal["hanger_limit", "hanger_ratio", "hanger_works", "hangers_apart", "head_arch_rise", "head_gap_hinge"]
        | Literal["head_gap_latch", "head_gap_needed", "head_low"]
        | Literal["head_off", "head_radius", "head_rake", "head_room", "head_span", "head_springing", "headroom"]
        | Literal["headroom_needed", "headroom_short", "height_trimmed", "hinge_angle", "hinge_edge_height"]
        | Literal["hinge_side_in", "hinge_stile_core_width", "hole_first", "hole_pitch", "hole_up", "hours"]
        | Literal["humidity_dry", "humidity_wet", "hung_higher", "hung_worst", "hung_worst_second", "inside_height"]
        | Literal["jig_length", "jig_margin", "jig_width", "joint_opens", "laid_over", "last_rip", "latch_backset"]
        | Literal["latch_beside", "latch_bore", "latch_deep", "latch_down", "latch_edge_height"]
        | Literal["latch_gap_back", "latch_keep"]
        | Literal["latch_side_in", "latch_stile_core_width", "latch_up", "late_foot", "late_head", "late_hinge"]
        | Literal["late_latch", "late_may_end", "late_may_side", "layer_nail", "layer_width"]
        | Literal["leaf_change_dry", "leaf_change_wet", "leaf_height", "leaf_over_head", "leaf_width", "least_bevel"]
        | Literal["least_boards", "least_length", "least_sheets", "least_track", "leaves", "ledge_foot", "ledge_in"]
        | Literal["ledge_length", "ledge_thick", "ledge_top", "ledge_width", "left_full_end", "left_full_side"]
        | Literal["left_over", "leg_hinge", "leg_latch"]
        | Literal["lift_on", "lining_depth", "lining_head", "lining_head_height", "lining_outside", "lining_part_depth"]
        | Literal["lining_thickness", "lining_wider", "lipping_depth", "lipping_width", "lock_backset", "lock_case"]
        | Literal["lock_case_tall"]
        | Literal["lock_down", "lock_height", "lock_keep", "lock_thick", "lock_up", "lock_up_trimmed"]
        | Literal["lower_muntin_core_width", "lower_muntin_length", "lower_panel_length", "made_falling", "made_rising"]
        | Literal["made_spread", "made_twist", "make_hours", "make_waits", "mass", "mass_reckoned"]
        | Literal["middle_muntin_length", "middle_panel_length", "middle_rail", "middle_rail_centre"]
        | Literal["middle_rail_core_width", "middle_up", "misuse_pull", "moisture", "moisture_dry", "moisture_made"]
        | Literal["moisture_wet", "moulding", "movement", "moving_width", "muntin", "muntin_length"]
        | Literal["must_open", "new_rail", "nick_across", "nick_up", "off", "off_edge", "off_height", "off_outer"]
        | Literal["off_panels", "old_height", "old_over", "old_width", "opening_needed", "opening_there", "opens_to"]
        | Literal["outside", "overlap_head", "overlap_hinge", "overlap_latch", "overlay", "overlay_shared"]
        | Literal["packet_length", "packet_spread", "packet_width", "packing", "packing_head", "packing_left"]
        | Literal["packing_lifts", "pair_both", "pair_width", "panel", "panel_density", "panel_gravity", "panel_hold"]
        | Literal["panel_hold_lower", "panel_hold_upper", "panel_movement", "panel_off", "panel_room"]
        | Literal["panel_room_lower", "panel_room_upper", "panel_shrink", "panel_shrink_lower", "panel_shrink_upper"]
        | Literal["panel_sight", "panel_swell", "panel_swell_lower", "panel_swell_upper", "panel_widest"]
        | Literal["panel_widest_lower", "panel_widest_upper", "panel_width", "panel_width_lower", "panel_width_upper"]
        | Literal["per_panel", "piece_hinge", "piece_latch", "pin_every", "pin_length", "pins_count", "pitch"]
        | Literal["place_slope", "plane_foot", "plane_latch_edge", "plane_top", "plate_back", "plate_cheek"]
        | Literal["plate_deep", "plate_front", "plate_wide", "plug_deeper", "plug_hole", "pocket_screw", "projection"]
        | Literal["proof_load", "proof_ratio", "pull", "pull_centres", "pull_deep", "pull_down", "pull_in", "pull_left"]
        | Literal[
            "pull_up",
            "pull_wood",
            "radius",
            "rail_length",
            "rail_marked",
            "rail_off",
            "rating_kg",
            "reading_across_hinge",
            "reading_across_latch",
        ]
        | Literal["reading_depth", "reading_diagonal_falling", "reading_diagonal_rising", "reading_height_hinge"]
        | Literal["reading_height_latch", "reading_height_middle", "reading_lean_hinge", "reading_lean_latch"]
        | Literal["reading_sill_rise", "reading_width_bottom", "reading_width_middle", "reading_width_top", "rebate"]
        | Literal["recess_depth", "recess_passes", "recess_step", "resaw_kerf", "rising_easing", "roller", "roller_in"]
        | Literal["rough_clear_height", "rough_clear_width", "rough_floor_high", "rough_head_low"]
        | Literal["rough_hinge_side_in", "rough_latch_side_in", "rough_needed", "rough_width", "rule_bench_length"]
        | Literal["rule_bevel_margin", "rule_blind_share", "rule_butt_back_wood", "rule_butt_from_bottom"]
        | Literal["rule_butt_from_top", "rule_butt_third_below", "rule_clamp_reach", "rule_clamps", "rule_end_trim"]
        | Literal["rule_gap_floor", "rule_gap_head", "rule_gap_hinge", "rule_gap_latch", "rule_groove_depth"]
        | Literal["rule_hour_price", "rule_joint_step", "rule_kerf", "rule_muntin_tenon", "rule_panel_clearance"]
        | Literal["rule_panel_hold", "rule_planer_width", "rule_sander_width", "rule_saw_width", "rule_shaving"]
        | Literal["rule_sigma_cut", "rule_sigma_hang", "rule_sigma_tick", "rule_solid_edge", "rule_tenon_share"]
        | Literal["rule_timber_price", "run", "run_between", "sanding", "sapwood", "screw_bears", "screw_count"]
        | Literal["screw_diameter", "screw_length", "screw_pilot", "screw_thread", "screws_work", "scribe_foot_hinges"]
        | Literal["scribe_foot_latch", "scribe_hinge_edge_foot", "scribe_hinge_edge_head", "scribe_latch_edge_foot"]
        | Literal["scribe_latch_edge_head", "scribe_top_hinges", "scribe_top_latch", "season", "season_shrink"]
        | Literal["self_swing", "sheet_area", "sheet_across", "sheet_clearance", "sheet_height"]
        | Literal["sheet_width", "sheets", "shoot"]
        | Literal["sight_clear_height", "sight_clear_width", "sight_floor_high", "sight_head_low"]
        | Literal["sight_hinge_side_in", "sight_latch_side_in"]
        | Literal[
            "frame_deep",
            "frame_leaf",
            "frame_proud",
            "frame_rebate",
            "frame_rebate_head",
            "old_keep",
            "old_recess_deep",
        ]
        | Literal["shoulder", "side", "side_shown", "sight", "sight_height", "sight_height_bottom"]
        | Literal["sight_height_lower", "sight_height_middle", "sight_height_top", "sight_height_upper"]
        | Literal["sight_height_whole", "sight_width", "sight_width_lower", "sight_width_upper", "sigma_floor"]
        | Literal["sigma_head", "sigma_hinge_side", "sigma_latch_side", "skew", "slab_edge_left", "slab_height"]
        | Literal["slab_off", "slab_off_height", "slab_width", "slide_air", "slot_length"]
        | Literal["solid", "solid_edges", "solid_left"]
        | Literal["specific_gravity", "splice_lap", "splice_stagger", "square_growth", "stack_backing", "stack_bite"]
        | Literal["stack_bites", "stack_clearance", "stack_depth", "stack_diameter", "stack_least", "stack_lining"]
        | Literal["stack_most", "stack_passes", "stack_pilot", "stack_plaster", "stack_safe", "stack_screw"]
        | Literal["stack_spacer", "stand_off", "stand_off_whole", "stands_out", "stick", "sticking", "stiffener_end"]
        | Literal["stiffener_in", "stiffener_length", "stiffener_width", "stile", "stile_left", "stile_may_lose"]
        | Literal["stile_off", "stock", "stock_width", "stop", "stop_back", "stop_long", "stop_open", "stop_room"]
        | Literal["stops_early", "strap", "strap_air", "stretch_middle", "strip_latch", "strip_most", "strip_on"]
        | Literal["strip_moves", "strip_sawn", "strip_width", "strips_count", "strokes_foot", "strokes_latch_edge"]
        | Literal["strokes_top"]
        | Literal["stud_hits", "stud_margin", "swing_floor_gap", "temperature_dry", "temperature_wet"]
        | Literal["template_corner", "template_length", "template_offset", "template_width", "tenon", "tenon_cover"]
        | Literal["tenon_every", "tenon_thickness", "tenons_count", "there_between", "there_edge", "there_foot"]
        | Literal["there_height", "there_top", "there_width", "thickness", "thickness_over", "thickness_set_out"]
        | Literal["ticks", "timber_volume", "tongue", "tongue_held", "top", "top_hinge_pull", "top_muntin_length"]
        | Literal["top_panel_length", "top_rail", "top_rail_core_width", "top_rail_old", "top_rail_slope", "track"]
        | Literal["track_holes", "track_line", "track_longer", "track_needed", "track_shift", "track_up", "track_whole"]
        | Literal["trench", "trim", "trim_height", "trim_side", "two_climates", "under_track", "underside_hinge"]
        | Literal["underside_latch", "upper_glass_height", "upper_muntin_core_width", "upper_muntin_length"]
        | Literal["upper_pane_width", "upper_panel_length", "upper_panel_off", "upper_panel_sight", "upper_rail"]
        | Literal["veneer", "veneer_back", "veneer_boards", "veneer_bow", "veneer_may_lose", "veneer_points"]
        | Literal["veneer_raw", "veneer_sets", "veneer_shoot", "veneer_spread", "veneer_thick", "veneer_thin"]
        | Literal["veneer_usable", "veneer_width", "veneers_across", "veneers_each", "veneers_needed", "wall_backing"]
        | Literal["wander", "wheel_air", "whole_panel_length", "width_trimmed", "wind", "withdrawal", "yield"]
    )
else:
    FigureName = str


def figure_name(text: str) -> FigureName:
    """Return the name of a figure that is made of a part, a number or another key.

    Args:
        text: The name, such as "mass_" and the part's slug.

    Returns:
        The same, as a name.
    """
    return cast("FigureName", text)
