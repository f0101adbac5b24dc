/** A small survey report, made up. */
export const REPORT =
  '==== machine ====\nx86_64\n==== meminfo ====\nMemTotal: 8000000 kB\n==== lsblk ====\n{"blockdevices":[{"name":"sda","type":"disk","size":240057409536,"serial":"S1","model":"M","tran":"sata","rota":false,"rm":false}]}\n';
